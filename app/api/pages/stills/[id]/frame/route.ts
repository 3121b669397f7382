import { bytesAnswer, readId, route } from '@/server/http/route';
import { heldPage } from '@/server/pages/held';

export const GET = route<{ id: string }>((_, params) =>
  Promise.resolve(bytesAnswer(heldPage(readId(params)).bytes, 'image/png')),
);
