import { openInputSchema } from '@/core/contracts/program';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';
import { openCopy } from '@/server/programs/programs';

export const POST = route<{ id: string }>(async (request, params) => {
  const { program } = await readJson(request, openInputSchema);
  await openCopy(readId(params), program);
  return new Response(null, { status: 204 });
});
