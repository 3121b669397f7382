import type { Readable, Writable } from 'node:stream';
import { z } from 'zod';

const messageSchema = z.object({
  id: z.int().optional(),
  method: z.string().optional(),
  params: z.unknown().optional(),
  result: z.unknown().optional(),
  error: z.object({ message: z.string() }).optional(),
  sessionId: z.string().optional(),
});

/** What the browser tells by itself. */
export interface Told {
  method: string;
  params: unknown;
  session: string | undefined;
}

/** A browser that is spoken to over a pair of pipes, in its DevTools protocol. */
export interface Pipe {
  /**
   * Asks for something. @throws Error where the browser refuses, or is gone
   * @returns its answer, not looked at yet
   */
  ask: (method: string, params?: object, session?: string) => Promise<unknown>;
  /** Hears what it tells. @returns how to stop listening */
  hear: (told: (what: Told) => void) => () => void;
}

interface Waiting {
  resolve: (answer: unknown) => void;
  reject: (problem: Error) => void;
}

const END = 0;

/** Messages are JSON, each ended by a zero byte. */
export function openPipe(to: Writable, from: Readable): Pipe {
  const waiting = new Map<number, Waiting>();
  const listeners = new Set<(what: Told) => void>();
  let parts: Buffer[] = [];
  let last = 0;
  let gone = false;

  const one = (text: string): void => {
    const { id, method, params, result, error, sessionId } = messageSchema.parse(JSON.parse(text));
    if (method !== undefined) {
      for (const told of listeners) told({ method, params, session: sessionId });
      return;
    }
    const asked = waiting.get(id ?? 0);
    waiting.delete(id ?? 0);
    if (error) asked?.reject(new Error(error.message));
    else asked?.resolve(result);
  };
  const end = (): void => {
    gone = true;
    for (const { reject } of waiting.values()) reject(new Error('The browser is gone.'));
    waiting.clear();
  };
  from.on('data', (piece: Buffer) => {
    let start = 0;
    for (let at = piece.indexOf(END); at >= 0; at = piece.indexOf(END, start)) {
      parts.push(piece.subarray(start, at));
      try {
        one(Buffer.concat(parts).toString());
      } catch (error) {
        // A browser that is not understood is of no use: whoever waits hears of it.
        console.error('The browser told something odd:', error);
        end();
      }
      parts = [];
      start = at + 1;
    }
    if (start < piece.length) parts.push(piece.subarray(start));
  });
  from.on('close', end).on('error', end);
  to.on('error', end);

  return {
    ask: (method, params = {}, session) =>
      new Promise((resolve, reject) => {
        if (gone) return reject(new Error('The browser is gone.'));
        last += 1;
        waiting.set(last, { resolve, reject });
        const message = { id: last, method, params, ...(session && { sessionId: session }) };
        to.write(`${JSON.stringify(message)}\0`);
      }),
    hear: (told) => {
      listeners.add(told);
      return () => void listeners.delete(told);
    },
  };
}
