import { tagPatchSchema } from '@/core/contracts/search';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';
import { changeTag, removeTag } from '@/server/tags/tags';

export const PATCH = route<{ id: string }>(async (request, params) =>
  Response.json(await changeTag(readId(params), await readJson(request, tagPatchSchema))),
);

export const DELETE = route<{ id: string }>(async (_, params) => {
  await removeTag(readId(params));
  return new Response(null, { status: 204 });
});
