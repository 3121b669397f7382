import { dropRestSchema } from '@/core/contracts/shot';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';
import { besides, dropTheRest } from '@/server/erase/dropRest';

/** What else shows the shot: it stays, ends or is not sent. */
export const GET = route<{ id: string }>(async (_, params) =>
  Response.json(await besides(readId(params))),
);

export const POST = route<{ id: string }>(async (request, params) => {
  const { revision, others } = await readJson(request, dropRestSchema);
  const next = await dropTheRest(readId(params), revision, others);
  // Thumbnails may lie in the browser's cache for a year; they show what is dropped.
  return Response.json({ revision: next }, { headers: { 'Clear-Site-Data': '"cache"' } });
});
