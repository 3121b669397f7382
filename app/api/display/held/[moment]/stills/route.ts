import { screenStillSchema } from '@/core/contracts/display';
import { readMoment, stillOfMoment } from '@/server/display/held/holding';
import { holdStill } from '@/server/display/heldStills';
import { route } from '@/server/http/route';

/** A moment as a stilled picture, on which something can be chosen. */
export const POST = route<{ moment: string }>(async (_request, params) => {
  const still = await holdStill(await stillOfMoment(readMoment(params)));
  return Response.json(screenStillSchema.parse(still), { status: 201 });
});
