import { savedSearchPatchSchema } from '@/core/contracts/search';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';
import { changeSearch, removeSearch } from '@/server/search/saved';

export const PATCH = route<{ id: string }>(async (request, params) =>
  Response.json(
    await changeSearch(readId(params), await readJson(request, savedSearchPatchSchema)),
  ),
);

export const DELETE = route<{ id: string }>(async (_, params) => {
  await removeSearch(readId(params));
  return new Response(null, { status: 204 });
});
