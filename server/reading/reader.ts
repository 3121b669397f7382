import { spawn, type ChildProcess } from 'node:child_process';
import { env } from '../base/env';
import { isBusy } from '../words/quiet';

/** A picture as it is given to the recogniser: grey, enlarged, in a format that it reads. */
export interface Readable {
  picture: Uint8Array;
  /** How much larger than the picture of the shot. */
  scale: number;
}

const MOST_OUTPUT = 32_000_000;
const TICK = 100;

/** Holds it up while a person takes or marks, and ends it when it takes too long. */
function watch(child: ChildProcess, signal: AbortSignal): () => string | null {
  let problem: string | null = null;
  let left = env().readingTime;
  let held = false;
  const timer = setInterval(() => {
    const busy = isBusy();
    if (busy !== held) child.kill(busy ? 'SIGSTOP' : 'SIGCONT');
    held = busy;
    if (!held) left -= TICK;
    if (left < 0) {
      problem = 'Reading this picture took too long.';
      child.kill('SIGKILL');
    }
  }, TICK);
  const end = () => void child.kill('SIGKILL');
  // One that is held up would stay so for ever.
  process.once('exit', end);
  signal.addEventListener('abort', end, { once: true });
  child.once('close', () => {
    clearInterval(timer);
    signal.removeEventListener('abort', end);
    process.removeListener('exit', end);
  });
  return () => problem;
}

/**
 * Runs a recogniser in a process of its own, which gets the picture and answers with text.
 * @throws Error in words when it fails, takes too long or was stopped
 */
export function runReader(
  program: string,
  args: readonly string[],
  picture: Uint8Array,
  signal: AbortSignal,
): Promise<string> {
  return new Promise((resolve, reject) => {
    const child = spawn(program, args, {
      stdio: ['pipe', 'pipe', 'pipe'],
      env: { ...process.env, OMP_THREAD_LIMIT: '1' },
    });
    const late = watch(child, signal);
    let answer = '';
    let said = '';
    child.stdout.setEncoding('utf8').on('data', (text: string) => {
      answer += text;
      if (answer.length > MOST_OUTPUT) child.kill('SIGKILL');
    });
    child.stderr
      .setEncoding('utf8')
      .on('data', (text: string) => (said = (said + text).slice(-500)));
    // It may end before it has read everything.
    child.stdin.on('error', () => undefined);
    child.on('error', reject);
    child.on('close', (code) => {
      if (code === 0) resolve(answer);
      else reject(new Error(late() ?? `The recogniser of words failed. ${said.trim()}`.trim()));
    });
    child.stdin.end(picture);
  });
}
