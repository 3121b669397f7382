import { bytesAnswer, route } from '@/server/http/route';
import { icon } from '@/server/install';

export const GET = route<{ size: string }>(async (_request, { size }) =>
  bytesAnswer(await icon(Number(size)), 'image/png', { 'Cache-Control': 'max-age=86400' }),
);
