import { manifest } from '@/server/manifest';
import { route } from '@/server/http/route';

export const dynamic = 'force-dynamic';

export const GET = route(async () =>
  Response.json(await manifest(), { headers: { 'Content-Type': 'application/manifest+json' } }),
);
