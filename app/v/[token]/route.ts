import { env } from '@/server/base/env';
import { guardHost } from '@/server/http/guard';
import { Fault } from '@/server/base/fault';
import { answerLink } from '@/server/links/answer';

/** On this computer links are seen through its own address; what they answer is the same. */
export async function GET(request: Request): Promise<Response> {
  try {
    guardHost(request.headers, env().port);
  } catch (error) {
    return new Response(error instanceof Fault ? error.message : 'Refused.', { status: 403 });
  }
  const { status, headers, body } = await answerLink(new URL(request.url).pathname, {
    look: request.method === 'HEAD',
  });
  return new Response(new Uint8Array(body), { status, headers });
}
