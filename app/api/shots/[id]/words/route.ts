import { readId, route } from '@/server/http/route';
import { readAgain, wordsOf } from '@/server/reading/reading';

export const GET = route<{ id: string }>(async (_, params) =>
  Response.json(await wordsOf(readId(params))),
);

/** They are read again, as soon as there is time. */
export const POST = route<{ id: string }>(async (_, params) => {
  await readAgain(readId(params));
  return new Response(null, { status: 202 });
});
