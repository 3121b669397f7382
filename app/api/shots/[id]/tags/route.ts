import { setTagsSchema } from '@/core/contracts/search';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';
import { setTags, tagsOf } from '@/server/tags/tags';

export const GET = route<{ id: string }>(async (_, params) =>
  Response.json({ tags: await tagsOf(readId(params)) }),
);

export const PUT = route<{ id: string }>(async (request, params) => {
  const { tags } = await readJson(request, setTagsSchema);
  return Response.json({ tags: await setTags(readId(params), tags) });
});
