import { z } from 'zod';
import { displayShotSchema, longShotSchema } from '@/core/contracts/display';
import { readJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { addLong } from '@/server/take/long';
import { answerOf, readWait } from '@/server/take/slow';
import { takeDisplay } from '@/server/take/takeDisplay';

const wishSchema = z.discriminatedUnion('kind', [displayShotSchema, longShotSchema]);

export const POST = route(async (request) => {
  const waits = readWait(request);
  const wish = await readJson(request, wishSchema);
  if (wish.kind !== 'long') return Response.json(await takeDisplay(wish), { status: 201 });
  return answerOf(await addLong(wish), waits, request.signal);
});
