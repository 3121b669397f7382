import { describedAnswerSchema } from '@/core/contracts/display';
import { readId, route } from '@/server/http/route';
import { heldPage } from '@/server/pages/held';

export const GET = route<{ id: string }>((_, params) => {
  const parts = heldPage(readId(params)).parts ?? [];
  return Promise.resolve(Response.json(describedAnswerSchema.parse({ parts })));
});
