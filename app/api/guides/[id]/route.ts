import { guidePatchSchema } from '@/core/contracts/guide';
import { changeGuide, getGuide, removeGuide } from '@/server/guides/guides';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';

export const GET = route<{ id: string }>(async (_request, params) =>
  Response.json(await getGuide(readId(params))),
);

export const PATCH = route<{ id: string }>(async (request, params) =>
  Response.json(await changeGuide(readId(params), await readJson(request, guidePatchSchema))),
);

export const DELETE = route<{ id: string }>(async (_request, params) => {
  await removeGuide(readId(params));
  return new Response(null, { status: 204 });
});
