import { routineInputSchema, routineOrderSchema } from '@/core/contracts/way';
import { systemKeyProblem, watchKeys } from '@/server/take/systemKeys';
import { readJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { addRoutine, listRoutines, orderRoutines } from '@/server/routines/routines';

export const GET = route(async () => {
  const routines = await listRoutines();
  return Response.json({
    routines: routines.map((r) => ({ ...r, systemKeyProblem: systemKeyProblem(r.id) })),
  });
});

export const POST = route(async (request) => {
  const routine = await addRoutine(await readJson(request, routineInputSchema));
  await watchKeys();
  return Response.json(routine, { status: 201 });
});

export const PUT = route(async (request) => {
  await orderRoutines((await readJson(request, routineOrderSchema)).ids);
  return new Response(null, { status: 204 });
});
