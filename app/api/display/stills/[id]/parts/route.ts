import { describedAnswerSchema } from '@/core/contracts/display';
import { describedOn } from '@/server/display/described';
import { heldStill } from '@/server/display/heldStills';
import { readId, route } from '@/server/http/route';

export const GET = route<{ id: string }>(async (_request, params) => {
  const parts = await describedOn(heldStill(readId(params)));
  return Response.json(describedAnswerSchema.parse({ parts }));
});
