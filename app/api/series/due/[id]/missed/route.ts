import { missedSchema } from '@/core/contracts/series';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';
import { bringNothing } from '@/server/series/brought';

export const POST = route<{ id: string }>(async (request, params) => {
  const { why } = await readJson(request, missedSchema);
  await bringNothing(readId(params), why);
  return new Response(null, { status: 204 });
});
