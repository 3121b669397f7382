import { sheetOf } from '@/core/document/view';
import { create } from 'zustand';
import { outerPixels, type Rect } from '@/core/geometry/rect';
import { wordsWithin } from '@/core/recognition/words';
import { messageOf } from '../../api/ask';
import { Recogniser, Stopped } from '../../words/recogniser';
import { storedParagraphs } from '../../words/stored';
import { settledRevision } from '../session/storing';
import { sceneOf } from '../session/scene';
import { shownPart } from '../fit/crop';
import { session } from '../session/session';

/** What was read last out of the picture; held here only, never stored. */
export type WordsOut =
  | { name: 'none' }
  | { name: 'reading' }
  | { name: 'read'; text: string; copied: boolean }
  | { name: 'failed'; why: string };

export const useWordsOut = create<{ out: WordsOut }>(() => ({ out: { name: 'none' } }));

const set = (out: WordsOut): void => useWordsOut.setState({ out });

/** Screens have small letters: they are read enlarged. */
const SCALE = 2;
/** White around the words helps the recogniser; in pixels of the picture. */
const MARGIN = 12;

let running: Recogniser | null = null;

export function stopWords(): void {
  running?.end();
  running = null;
  set({ name: 'none' });
}

/** Reads the words of a region in reading order and copies them. What is hidden is not read. */
export async function copyWordsOf(region: Rect): Promise<void> {
  stopWords();
  const recogniser = new Recogniser();
  running = recogniser;
  set({ name: 'reading' });
  try {
    const text = await wordsOf(recogniser, region);
    if (running !== recogniser) return;
    set({ name: 'read', text, copied: text !== '' && (await copied(text)) });
  } catch (error) {
    if (!(error instanceof Stopped)) set({ name: 'failed', why: messageOf(error) });
  } finally {
    recogniser.end();
  }
}

async function wordsOf(recogniser: Recogniser, region: Rect): Promise<string> {
  const { id, history, moment } = session();
  const { view } = history.document;
  const r = outerPixels(shownPart(sheetOf(view), region));
  // Of a clip the words of its first picture are known.
  const revision = moment ? null : settledRevision(id);
  const stored = await storedParagraphs(id, revision, sheetOf(view));
  if (stored) return wordsWithin(stored, r);
  const pixels = sceneOf().scene.below('', r);
  const canvas = new OffscreenCanvas(r.width + 2 * MARGIN, r.height + 2 * MARGIN);
  const surface = canvas.getContext('2d');
  if (!surface) throw new Error('This browser gives no canvas of that size.');
  const [red = 255, green = 255, blue = 255] = pixels.data;
  surface.fillStyle = `rgb(${red} ${green} ${blue})`;
  surface.fillRect(0, 0, canvas.width, canvas.height);
  surface.putImageData(new ImageData(pixels.data, r.width, r.height), MARGIN, MARGIN);
  const picture = canvas.transferToImageBitmap();
  const paragraphs = await recogniser.read(picture, SCALE, 'page');
  const whole = { x: 0, y: 0, width: picture.width, height: picture.height };
  picture.close();
  return wordsWithin(paragraphs, whole);
}

async function copied(text: string): Promise<boolean> {
  try {
    await navigator.clipboard.writeText(text);
    return true;
  } catch {
    return false;
  }
}
