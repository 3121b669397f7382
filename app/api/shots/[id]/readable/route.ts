import { readId, route } from '@/server/http/route';
import { smallestWords } from '@/server/keep/readable';

export const GET = route<{ id: string }>(async (_request, params) =>
  Response.json(await smallestWords(readId(params))),
);
