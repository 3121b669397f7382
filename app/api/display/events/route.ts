import { pageStream } from '@/server/display/openPages';
import { route } from '@/server/http/route';

export const dynamic = 'force-dynamic';

export const GET = route(async (request) =>
  Promise.resolve(
    new Response(pageStream(request.signal), {
      headers: { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store' },
    }),
  ),
);
