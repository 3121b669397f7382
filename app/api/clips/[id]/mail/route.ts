import { clipMailSchema } from '@/core/contracts/clipCopy';
import { httpDisposition } from '@/core/naming/disposition';
import { clipMessage } from '@/server/clips/mail';
import { readJson } from '@/server/http/body';
import { bytesAnswer, readId, route } from '@/server/http/route';
import { dropMessage } from '@/server/mail/drop';

/** A draft with a file that was written of a clip; or, with `drop`, put into the mail drop. */
export const POST = route<{ id: string }>(async (request, params) => {
  const input = await readJson(request, clipMailSchema);
  const id = readId(params);
  const message = await clipMessage(id, input);
  if (input.drop)
    return Response.json({ name: await dropMessage(id, message.bytes) }, { status: 201 });
  return bytesAnswer(message.bytes, 'message/rfc822', {
    'Content-Disposition': httpDisposition('attachment', message.name),
  });
});
