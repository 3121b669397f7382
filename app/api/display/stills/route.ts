import { screenStillSchema } from '@/core/contracts/display';
import { holdStill } from '@/server/display/heldStills';
import { route } from '@/server/http/route';

export const POST = route(async () =>
  Response.json(screenStillSchema.parse(await holdStill()), { status: 201 }),
);
