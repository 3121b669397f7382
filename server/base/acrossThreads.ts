import type { MessagePort, Worker } from 'node:worker_threads';
import { z } from 'zod';
import { Fault } from './fault';

/** An error on its way between threads, where errors lose their kind. */
export const problemSchema = z.object({
  message: z.string(),
  status: z.int().optional(),
  code: z.string().optional(),
});
type Problem = z.infer<typeof problemSchema>;

export function problemOf(error: unknown): Problem {
  if (error instanceof Fault) {
    const { status, code, message } = error;
    return { status, code, message };
  }
  return { message: error instanceof Error ? error.message : String(error) };
}

/** A fault is put together again on the other side. */
export const errorOf = ({ message, status, code }: Problem): Error =>
  status === undefined ? new Error(message) : new Fault(status, code ?? 'inside', message);

type Doing = Record<string, (...args: never[]) => unknown>;

/** What a thread does, as whoever asks it sees it. */
export type Calls<T extends Doing> = {
  [K in keyof T]: (...args: Parameters<T[K]>) => Promise<Awaited<ReturnType<T[K]>>>;
};

const callSchema = z.object({ id: z.int(), name: z.string(), args: z.array(z.custom<never>()) });
const answerSchema = z.union([
  z.object({ id: z.int(), problem: problemSchema }),
  z.object({ id: z.int(), value: z.unknown() }),
]);

/** Does in this thread what is asked through `callsOf`; several things may be going on at a time. */
export function answerCalls(port: MessagePort, does: Doing): void {
  port.on('message', (message: unknown) => {
    const { id, name, args } = callSchema.parse(message);
    const done = Promise.resolve().then(() => does[name]?.(...args));
    done.then(
      (value) => port.postMessage({ id, value }),
      (error: unknown) => port.postMessage({ id, problem: problemOf(error) }),
    );
  });
}

/** Asks a thread that answers with `answerCalls`; once it is over, whatever is still asked fails. */
export function callsOf<T extends Doing>(worker: Worker): Calls<T> {
  const waiting = new Map<
    number,
    { done: (value: unknown) => void; failed: (error: Error) => void }
  >();
  let last = 0;
  let over: Error | null = null;
  worker.on('message', (message: unknown) => {
    const answer = answerSchema.parse(message);
    const asked = waiting.get(answer.id);
    waiting.delete(answer.id);
    if ('problem' in answer) asked?.failed(errorOf(answer.problem));
    else asked?.done(answer.value);
  });
  const end = (error: Error) => {
    over ??= error;
    for (const { failed } of waiting.values()) failed(over);
    waiting.clear();
  };
  worker.on('error', end);
  worker.on('exit', () => end(new Fault(503, 'ended', 'That was ended meanwhile.')));
  const call = (name: string, args: unknown[]) =>
    new Promise((done, failed) => {
      if (over) return failed(over);
      last += 1;
      waiting.set(last, { done, failed });
      worker.postMessage({ id: last, name, args });
    });
  return new Proxy({} as Calls<T>, {
    // A promise would be taken for something to wait for.
    get: (_, name) =>
      typeof name === 'string' && name !== 'then' ? (...args: unknown[]) => call(name, args) : null,
  });
}
