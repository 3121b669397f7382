import { z } from 'zod';
import { browsePlaces } from '@/server/folders/browse';
import { fit } from '@/server/http/body';
import { route } from '@/server/http/route';

const querySchema = z.object({ path: z.string().min(1).max(4000) });

export const GET = route(async (request) => {
  const { path } = fit(Object.fromEntries(new URL(request.url).searchParams), querySchema);
  return Response.json(await browsePlaces(path));
});
