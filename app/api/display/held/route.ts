import { heldAnswerSchema, heldPatchSchema } from '@/core/contracts/held';
import { goOn, heldAnswer, startHolding, stopHolding } from '@/server/display/held/holding';
import { readJson } from '@/server/http/body';
import { route } from '@/server/http/route';

export const GET = route(async () => Response.json(heldAnswerSchema.parse(await heldAnswer())));

export const PATCH = route(async (request) => {
  const patch = await readJson(request, heldPatchSchema);
  if ('goOn' in patch) goOn();
  else if (patch.on) await startHolding();
  else stopHolding();
  return Response.json(heldAnswerSchema.parse(await heldAnswer()));
});
