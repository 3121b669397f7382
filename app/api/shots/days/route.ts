import { z } from 'zod';
import { month } from '@/core/contracts/search';
import { fit } from '@/server/http/body';
import { route } from '@/server/http/route';
import { daysOf } from '@/server/shots/days';

export const GET = route(async (request) => {
  const asked = fit(Object.fromEntries(new URL(request.url).searchParams), z.object({ month }));
  return Response.json({ days: await daysOf(asked.month) });
});
