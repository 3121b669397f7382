import { mailInputSchema } from '@/core/contracts/mail';
import { httpDisposition } from '@/core/naming/disposition';
import { readJson } from '@/server/http/body';
import { bytesAnswer, readId, route } from '@/server/http/route';
import { dropMessage } from '@/server/mail/drop';
import { messageFor } from '@/server/mail/message';

/** A draft as a file; or, with `drop`, put into the mail drop. */
export const POST = route<{ id: string }>(async (request, params) => {
  const input = await readJson(request, mailInputSchema);
  const id = readId(params);
  const message = await messageFor(id, input);
  if (input.drop) {
    return Response.json({ name: await dropMessage(id, message.bytes) }, { status: 201 });
  }
  return bytesAnswer(message.bytes, 'message/rfc822', {
    'Content-Disposition': httpDisposition('attachment', message.name),
  });
});
