import { getWriting, stopWriting } from '@/server/clips/copies';
import { readId, route } from '@/server/http/route';

interface Params {
  id: string;
  job: string;
}

/** Small pictures may lie in the browser's cache for a year; they show what is dropped. */
const FORGET = { 'Clear-Site-Data': '"cache"' };

export const GET = route<Params>(async (_, params) => {
  const job = await getWriting(readId(params), readId({ id: params.job }));
  const isDropped = job.drops && job.state === 'done';
  return Response.json(job, isDropped ? { headers: FORGET } : {});
});

export const DELETE = route<Params>(async (_, params) => {
  await stopWriting(readId(params), readId({ id: params.job }));
  return new Response(null, { status: 204 });
});
