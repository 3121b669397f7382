import { stillInputSchema } from '@/core/contracts/clip';
import { pickStill } from '@/server/clips/stills';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';

export const POST = route<{ id: string }>(async (request, params) => {
  const { at, id } = await readJson(request, stillInputSchema);
  return Response.json(await pickStill(readId(params), at, id), { status: 201 });
});
