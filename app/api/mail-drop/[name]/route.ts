import { bytesAnswer, route } from '@/server/http/route';
import { droppedMessage } from '@/server/mail/drop';

export const GET = route<{ name: string }>(async (_request, { name }) =>
  bytesAnswer(await droppedMessage(decodeURIComponent(name)), 'message/rfc822', {
    'Content-Disposition': 'attachment',
  }),
);
