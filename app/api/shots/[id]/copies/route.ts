import { copyInputSchema } from '@/core/contracts/folder';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';
import { keepCopy } from '@/server/keep/copies';
import { listCopies } from '@/server/keep/copyRows';

interface Params {
  id: string;
}

export const GET = route<Params>(async (_, params) =>
  Response.json({ copies: await listCopies(readId(params)) }),
);

export const POST = route<Params>(async (request, params) => {
  const input = await readJson(request, copyInputSchema);
  return Response.json(await keepCopy(readId(params), input), { status: 201 });
});
