import { AsyncLocalStorage } from 'node:async_hooks';
import type { z } from 'zod';
import { limits } from '@/core/values/limits';
import { Fault } from '../base/fault';
import { shared } from '../base/shared';

/** Bytes of bodies that all requests together may hold, while they arrive and are worked on. */
const MOST_HELD = 600_000_000;

/** What all requests hold together, and each of them. */
const bodies = shared('bodies', () => ({
  bytes: 0,
  own: new AsyncLocalStorage<{ bytes: number }>(),
}));

/** Counts the bodies that a request holds until it is answered. */
export async function countBodies<T>(act: () => Promise<T>): Promise<T> {
  const own = { bytes: 0 };
  try {
    return await bodies.own.run(own, act);
  } finally {
    bodies.bytes -= own.bytes;
  }
}

/** @throws Fault 503 when all requests together would hold too much */
function hold(bytes: number): void {
  const own = bodies.own.getStore();
  if (!own) return;
  if (bodies.bytes + bytes > MOST_HELD) {
    throw new Fault(503, 'busy', 'Rezzik has its hands full of other pictures. Try again soon.');
  }
  bodies.bytes += bytes;
  own.bytes += bytes;
}

/**
 * A body piece by piece, counted while it arrives.
 * @param isHeld false where nothing of it is held longer than a moment
 * @throws Fault 413 when it is larger than `most`, 503 when too much is held already, 400 when it ends before its announced length
 */
export async function* bodyPieces(
  request: Request,
  most: number,
  isHeld = true,
): AsyncGenerator<Uint8Array> {
  const tooLarge = () =>
    new Fault(413, 'too-large', `That is more than ${Math.floor(most / 1_000_000)} MB.`);
  const cutShort = () =>
    new Fault(400, 'cut-short', 'The upload did not arrive whole. Nothing was stored.');
  const announced = request.headers.get('content-length');
  if (announced !== null && Number(announced) > most) throw tooLarge();
  let length = 0;
  const reader = request.body?.getReader();
  try {
    for (;;) {
      const part = await reader?.read().catch(() => {
        throw cutShort();
      });
      if (!part || part.done) break;
      length += part.value.length;
      if (length > most) throw tooLarge();
      if (isHeld) hold(part.value.length);
      yield part.value;
    }
  } finally {
    await reader?.cancel().catch(() => undefined);
  }
  if (announced !== null && Number(announced) !== length) throw cutShort();
}

/** The whole body. @throws as `bodyPieces` does */
export async function readBytes(request: Request, most: number): Promise<Uint8Array<ArrayBuffer>> {
  const pieces: Uint8Array[] = [];
  for await (const piece of bodyPieces(request, most)) pieces.push(piece);
  const whole = new Uint8Array(pieces.reduce((sum, piece) => sum + piece.length, 0));
  let at = 0;
  for (const piece of pieces) {
    whole.set(piece, at);
    at += piece.length;
  }
  return whole;
}

/** A JSON body that fits `schema`. @throws Fault 400, 413 or 415 */
export async function readJson<T extends z.ZodType>(
  request: Request,
  schema: T,
): Promise<z.output<T>> {
  if (!/^application\/json\b/i.test(request.headers.get('content-type') ?? '')) {
    throw new Fault(415, 'not-json', 'The request must be JSON (Content-Type: application/json).');
  }
  const bytes = await readBytes(request, limits.jsonBytes);
  return parseJson(new TextDecoder().decode(bytes), schema);
}

/** @throws Fault 400 naming the first thing that does not fit */
export function parseJson<T extends z.ZodType>(text: string, schema: T): z.output<T> {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new Fault(400, 'not-json', 'The request is not valid JSON.');
  }
  return fit(value, schema);
}

/** @throws Fault 400 naming the first thing that does not fit */
export function fit<T extends z.ZodType>(value: unknown, schema: T): z.output<T> {
  const read = schema.safeParse(value);
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  const place = issue?.path.length ? `${issue.path.join('.')}: ` : '';
  throw new Fault(400, 'does-not-fit', `${place}${issue?.message ?? 'does not fit'}`);
}
