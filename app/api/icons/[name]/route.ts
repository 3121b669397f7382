import { bytesAnswer, route } from '@/server/http/route';
import { icon } from '@/server/manifest';

export const GET = route<{ name: string }>(async (_request, { name }) =>
  bytesAnswer(await icon(name), 'image/png', { 'Cache-Control': 'max-age=86400' }),
);
