import { hearLocks } from '@/server/display/held/holding';
import { pageStream } from '@/server/display/openPages';
import { route } from '@/server/http/route';

export const dynamic = 'force-dynamic';

export const GET = route(async (request) => {
  void hearLocks();
  return Promise.resolve(
    new Response(pageStream(request.signal), {
      headers: { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store' },
    }),
  );
});
