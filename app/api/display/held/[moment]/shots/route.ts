import { heldShotSchema } from '@/core/contracts/held';
import { readMoment, stillOfMoment } from '@/server/display/held/holding';
import { readJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { takeOf } from '@/server/take/takeDisplay';

export const POST = route<{ moment: string }>(async (request, params) => {
  const wish = await readJson(request, heldShotSchema);
  const stored = await takeOf(await stillOfMoment(readMoment(params)), wish);
  return Response.json(stored, { status: 201 });
});
