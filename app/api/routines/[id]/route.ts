import { routinePatchSchema } from '@/core/contracts/way';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';
import { changeRoutine, removeRoutine } from '@/server/routines/routines';

export const PATCH = route<{ id: string }>(async (request, params) =>
  Response.json(await changeRoutine(readId(params), await readJson(request, routinePatchSchema))),
);

export const DELETE = route<{ id: string }>(async (_request, params) => {
  await removeRoutine(readId(params));
  return new Response(null, { status: 204 });
});
