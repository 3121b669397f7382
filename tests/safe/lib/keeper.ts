import { z } from 'zod';
import { copyInputSchema } from '@/core/contracts/folder';
import { keepCopy } from '@/server/keep/copies';

/** What it is told to keep, all at once. */
const wishesSchema = z.array(z.object({ shot: z.uuid(), input: copyInputSchema }));

/** Keeps what its argument says, telling each copy as it is promised. It is there to be killed. */
const wishes = wishesSchema.parse(JSON.parse(process.argv[2] ?? '[]'));
process.stdout.write('begun\n');
await Promise.all(
  wishes.map(async ({ shot, input }) => {
    const { path } = await keepCopy(shot, input);
    process.stdout.write(`${JSON.stringify(path)}\n`);
  }),
);
process.exit(0);
