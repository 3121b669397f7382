import { getWriting, stopWriting } from '@/server/clips/copies';
import { readId, route } from '@/server/http/route';

interface Params {
  id: string;
  job: string;
}

export const GET = route<Params>(async (_, params) =>
  Response.json(await getWriting(readId(params), readId({ id: params.job }))),
);

export const DELETE = route<Params>(async (_, params) => {
  await stopWriting(readId(params), readId({ id: params.job }));
  return new Response(null, { status: 204 });
});
