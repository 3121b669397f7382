import { unkeptQuerySchema } from '@/core/contracts/room';
import { fit } from '@/server/http/body';
import { route } from '@/server/http/route';
import { previewUnkept } from '@/server/room/unkept';

/** What a rule would put into the Bin now. */
export const GET = route(async (request) => {
  const query = Object.fromEntries(new URL(request.url).searchParams);
  return Response.json(await previewUnkept(fit(query, unkeptQuerySchema).days));
});
