import { pageProgressSchema, pageStillSchema, pageWishSchema } from '@/core/contracts/page';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';
import { dropPage, holdPage, progressOf } from '@/server/pages/held';

interface Params {
  id: string;
}

/** Takes a page and holds its picture under this id. Whoever does not wait any more stops it. */
export const PUT = route<Params>(async (request, params) => {
  const wish = await readJson(request, pageWishSchema);
  const still = await holdPage(readId(params), wish, request.signal);
  return Response.json(pageStillSchema.parse(still), { status: 201 });
});

/** What goes on with it. */
export const GET = route<Params>((_, params) =>
  Promise.resolve(
    Response.json(pageProgressSchema.parse({ progress: progressOf(readId(params)) })),
  ),
);

export const DELETE = route<Params>((_, params) => {
  dropPage(readId(params));
  return Promise.resolve(new Response(null, { status: 204 }));
});
