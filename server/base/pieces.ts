import { shared } from './shared';

/** Bytes that are copied, hashed or written out in one go: some milliseconds of the event loop. */
export const PIECE = 1_000_000;

const waiting = shared<(() => void)[]>('loopTurns', () => []);

function next(): void {
  waiting.shift()?.();
  if (waiting.length > 0) setImmediate(next);
}

/**
 * Waits for a turn of the event loop of one's own. However many go through something large at a
 * time, one piece is done between two looks at what else has come, not one of each.
 */
export function loopTurn(): Promise<void> {
  return new Promise((begin) => {
    waiting.push(begin);
    if (waiting.length === 1) setImmediate(next);
  });
}

/** Bytes a piece at a time, without copying them; between two the event loop is free. */
export async function* piecesOf(
  bytes: Uint8Array | Uint8ClampedArray,
  length = PIECE,
): AsyncGenerator<Uint8Array | Uint8ClampedArray> {
  for (let at = 0; at < bytes.length; at += length) {
    if (bytes.length > length) await loopTurn();
    yield bytes.subarray(at, at + length);
  }
}

/** The same bytes in memory that all threads see, for what is too large to be copied on its way. */
export async function inSharedMemory(
  bytes: Uint8Array | Uint8ClampedArray,
): Promise<SharedArrayBuffer> {
  const memory = new SharedArrayBuffer(bytes.length);
  const into = new Uint8Array(memory);
  let at = 0;
  for await (const piece of piecesOf(bytes)) {
    into.set(piece, at);
    at += piece.length;
  }
  return memory;
}
