import { execFile, spawn, type ChildProcess } from 'node:child_process';
import { promisify } from 'node:util';
import type { Paragraph } from '@/core/recognition/words';
import { env } from '../env';
import { shippedRecognise } from './shipped';
import { isBusy } from './quiet';
import { readTsv } from './tsv';

/** A picture as it is given to the recogniser: grey, enlarged, in a format that it reads. */
export interface Readable {
  picture: Uint8Array;
  /** How much larger than the picture of the shot. */
  scale: number;
}

const MOST_OUTPUT = 32_000_000;
const TICK = 100;

/** The whole paths are not fixed: a person may have a newer one of their own. */
const PROGRAM = 'tesseract';
/** How it is asked for pages of text in any arrangement. */
const MODE = '3';

const exec = promisify(execFile);

/** Languages that can be read; where Tesseract is not installed, the one that ships with the app. */
export async function languages(): Promise<{ installed: boolean; languages: string[] }> {
  try {
    const { stdout } = await exec(PROGRAM, ['--list-langs'], {
      timeout: 10_000,
      env: process.env,
    });
    const found = stdout
      .split('\n')
      .slice(1)
      .map((name) => name.trim())
      .filter((name) => /^[\w/-]+$/.test(name) && name !== 'osd');
    if (found.length) return { installed: true, languages: found };
  } catch {
    // Not there, or not in order: the shipped one reads.
  }
  return { installed: false, languages: ['eng'] };
}

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

/** Starts it behind everything else that computes, with one thread. */
function start(language: string): ChildProcess {
  return spawn(
    'nice',
    ['-n', '19', PROGRAM, 'stdin', 'stdout', '-l', language, '--psm', MODE, 'tsv'],
    {
      stdio: ['pipe', 'pipe', 'pipe'],
      env: { ...process.env, OMP_THREAD_LIMIT: '1' },
    },
  );
}

/** @throws Error in words when it fails, takes too long or was stopped */
function byTesseract(
  { picture, scale }: Readable,
  language: string,
  signal: AbortSignal,
): Promise<Paragraph[]> {
  return new Promise((resolve, reject) => {
    const child = start(language);
    const late = watch(child, signal);
    let table = '';
    let said = '';
    child.stdout?.setEncoding('utf8').on('data', (text: string) => {
      table += text;
      if (table.length > MOST_OUTPUT) child.kill('SIGKILL');
    });
    child.stderr
      ?.setEncoding('utf8')
      .on('data', (text: string) => (said = (said + text).slice(-500)));
    // It may end before it has read everything.
    child.stdin?.on('error', () => undefined);
    child.on('error', reject);
    child.on('close', (code) => {
      if (code === 0) resolve(readTsv(table, scale));
      else reject(new Error(late() ?? `The recogniser of words failed. ${said.trim()}`.trim()));
    });
    child.stdin?.end(picture);
  });
}

/**
 * The words of a picture, in its pixels, by Debian's Tesseract where that is installed, else by the
 * one that ships with the app. @throws Error in words
 */
export async function recognise(
  picture: Readable,
  language: string,
  signal: AbortSignal,
): Promise<Paragraph[]> {
  const there = await languages();
  signal.throwIfAborted();
  if (!there.installed) return shippedRecognise(picture, signal);
  // A language that was taken away again is no reason not to read at all.
  const [first = 'eng'] = there.languages.includes('eng') ? ['eng'] : there.languages;
  return byTesseract(picture, there.languages.includes(language) ? language : first, signal);
}
