import { ZodError } from 'zod';
import { faultOf } from '../db/faultOf';
import { env } from '../base/env';
import { PIECE, loopTurn } from '../base/pieces';
import { countBodies } from './body';
import { Fault } from '../base/fault';
import { guard } from './guard';

interface Context<P> {
  params: Promise<P>;
}

/** Headers of every answer: nothing may be read or framed from elsewhere, nothing guessed. */
const always = {
  'Cross-Origin-Resource-Policy': 'same-origin',
  'X-Content-Type-Options': 'nosniff',
  'Referrer-Policy': 'no-referrer',
};

/** A route handler behind the guard, whose faults become answers in plain words. */
export function route<P = Record<string, never>>(
  handle: (request: Request, params: P) => Promise<Response>,
): (request: Request, context: Context<P>) => Promise<Response> {
  return async (request, context) => {
    const answer = await attempt(request.signal, () =>
      countBodies(async () => {
        guard(request.headers, env().port);
        return handle(request, await context.params);
      }),
    );
    for (const [name, value] of Object.entries(always)) answer.headers.set(name, value);
    if (!answer.headers.has('Cache-Control')) answer.headers.set('Cache-Control', 'no-store');
    return answer;
  };
}

async function attempt(signal: AbortSignal, act: () => Promise<Response>): Promise<Response> {
  try {
    return await act();
  } catch (error) {
    // Whoever asked is gone, and what was done for them has ended with it.
    if (signal.aborted) return new Response(null, { status: 499 });
    const fault = error instanceof Fault ? error : faultOf(error);
    if (fault) {
      const { status, code, message, more } = fault;
      return Response.json({ error: { code, message }, ...more }, { status });
    }
    if (error instanceof ZodError) console.error('A stored value does not fit:', error.message);
    else console.error(error);
    const message = 'Something went wrong inside Rezzik. What was stored before is safe.';
    return Response.json({ error: { code: 'inside', message } }, { status: 500 });
  }
}

export const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

/** The id in an address. @throws Fault 404 when it cannot be one */
export function readId({ id }: { id: string }): string {
  if (!UUID.test(id)) throw new Fault(404, 'not-found', 'There is nothing at this address.');
  return id.toLowerCase();
}

export function bytesAnswer(
  bytes: Uint8Array,
  type: string,
  headers: Record<string, string> = {},
): Response {
  const body = bytes.length > PIECE ? inPieces(bytes) : new Uint8Array(bytes);
  return new Response(body, {
    headers: { 'Content-Type': type, 'Content-Length': String(bytes.length), ...headers },
  });
}

/** A large body is not copied as a whole, which would hold up everybody else. */
function inPieces(bytes: Uint8Array): ReadableStream<Uint8Array> {
  let at = 0;
  return new ReadableStream({
    async pull(stream) {
      await loopTurn();
      stream.enqueue(bytes.subarray(at, at + PIECE));
      at += PIECE;
      if (at >= bytes.length) stream.close();
    },
  });
}
