import { routinePatchSchema } from '@/core/contracts/way';
import { watchKeys } from '@/server/take/systemKeys';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';
import { changeRoutine, removeRoutine } from '@/server/routines/routines';

export const PATCH = route<{ id: string }>(async (request, params) => {
  const patch = await readJson(request, routinePatchSchema);
  const routine = await changeRoutine(readId(params), patch);
  await watchKeys();
  return Response.json(routine);
});

export const DELETE = route<{ id: string }>(async (_request, params) => {
  await removeRoutine(readId(params));
  await watchKeys();
  return new Response(null, { status: 204 });
});
