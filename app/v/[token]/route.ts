import { env } from '@/server/base/env';
import { guardHost } from '@/server/http/guard';
import { Fault } from '@/server/base/fault';
import { Readable } from 'node:stream';
import { answerLink } from '@/server/links/answer';

/** On this computer links are seen through its own address; what they answer is the same. */
export async function GET(request: Request): Promise<Response> {
  try {
    guardHost(request.headers, env().port);
  } catch (error) {
    return new Response(error instanceof Fault ? error.message : 'Refused.', { status: 403 });
  }
  const { pathname, search } = new URL(request.url);
  const { status, headers, body, stream } = await answerLink(pathname + search, {
    look: request.method === 'HEAD',
    range: request.headers.get('range'),
  });
  return new Response(stream ? sent(stream, request.signal) : new Uint8Array(body), {
    status,
    headers,
  });
}

function sent(stream: Readable, signal: AbortSignal): BodyInit {
  // Whoever looks may go away in the middle.
  stream.on('error', () => undefined);
  signal.addEventListener('abort', () => stream.destroy(), { once: true });
  return Readable.toWeb(stream) as ReadableStream<Uint8Array>;
}
