import { readId, route } from '@/server/http/route';
import { getSteps } from '@/server/shots/change';

export const GET = route<{ id: string }>(async (_, params) =>
  Response.json(await getSteps(readId(params))),
);
