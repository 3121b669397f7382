import { sql } from '@/server/db/sql';
import { route } from '@/server/http/route';

export const GET = route(async () => {
  await sql()`select 1`;
  return Response.json({ ok: true, name: 'Rezzik' });
});
