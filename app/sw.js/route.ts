import { route } from '@/server/http/route';
import { serviceWorker } from '@/server/offline';

export const dynamic = 'force-dynamic';

export const GET = route(
  async () =>
    new Response(await serviceWorker(), {
      headers: { 'Content-Type': 'text/javascript; charset=utf-8', 'Cache-Control': 'no-cache' },
    }),
);
