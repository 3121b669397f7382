import { manyTagsSchema } from '@/core/contracts/search';
import { readJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { tagMany } from '@/server/tags/tags';

export const POST = route(async (request) => {
  await tagMany(await readJson(request, manyTagsSchema));
  return new Response(null, { status: 204 });
});
