import { routineInputSchema, routineOrderSchema } from '@/core/contracts/way';
import { readJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { addRoutine, listRoutines, orderRoutines } from '@/server/routines/routines';

export const GET = route(async () => Response.json({ routines: await listRoutines() }));

export const POST = route(async (request) =>
  Response.json(await addRoutine(await readJson(request, routineInputSchema)), { status: 201 }),
);

export const PUT = route(async (request) => {
  await orderRoutines((await readJson(request, routineOrderSchema)).ids);
  return new Response(null, { status: 204 });
});
