import { screenStillSchema } from '@/core/contracts/display';
import { dropStill, heldStill } from '@/server/display/heldStills';
import { readId, route } from '@/server/http/route';

export const GET = route<{ id: string }>(async (_request, params) => {
  const still = screenStillSchema.parse(heldStill(readId(params)));
  return Promise.resolve(Response.json(still));
});

export const DELETE = route<{ id: string }>(async (_request, params) => {
  dropStill(readId(params));
  return Promise.resolve(new Response(null, { status: 204 }));
});
