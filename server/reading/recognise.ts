import { execFile } from 'node:child_process';
import { promisify } from 'node:util';
import type { Paragraph } from '@/core/recognition/words';
import { runReader, type Readable } from './reader';
import { shippedRecognise } from './shipped';
import { readTsv } from './tsv';

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

/** @throws Error in words when it fails, takes too long or was stopped */
async function byTesseract(
  { picture, scale }: Readable,
  language: string,
  signal: AbortSignal,
): Promise<Paragraph[]> {
  // Behind everything else that computes, with one thread.
  const args = ['-n', '19', PROGRAM, 'stdin', 'stdout', '-l', language, '--psm', MODE, 'tsv'];
  return readTsv(await runReader('nice', args, picture, signal), scale);
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
