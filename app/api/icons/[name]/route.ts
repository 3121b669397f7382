import { bytesAnswer, route } from '@/server/http/route';
import { icon } from '@/server/install';

export const GET = route<{ name: string }>(async (_request, { name }) =>
  bytesAnswer(await icon(name), 'image/png', { 'Cache-Control': 'max-age=86400' }),
);
