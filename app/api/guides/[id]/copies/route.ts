import { guideCopyInputSchema } from '@/core/contracts/guide';
import { keepGuide } from '@/server/guides/keep';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';

export const POST = route<{ id: string }>(async (request, params) => {
  const input = await readJson(request, guideCopyInputSchema);
  return Response.json(await keepGuide(readId(params), input, request.signal), { status: 201 });
});
