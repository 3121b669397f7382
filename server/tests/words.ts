import { createCanvas, GlobalFonts } from '@napi-rs/canvas';
import { shared } from '../base/shared';
import { sql } from '../db/sql';
import { indexShot } from '../indexing/indexing';
import { workAlone } from '../jobs/run';
import { packWords } from '../words/rows';

/** Words of a text as a recogniser would have found them: ten pixels a letter, line below line. */
export const linesOf = (text: string) => [
  text.split('\n').map((line, row) => {
    let x = 0;
    return line.split(' ').map((word) => {
      const box = { x, y: row * 20, width: word.length * 10, height: 12 };
      x += box.width + 10;
      return { text: word, box };
    });
  }),
];

/** A shot's words, as if its picture had been read. */
export async function putWords(id: string, text: string): Promise<void> {
  const { lines, boxes } = packWords(linesOf(text));
  await sql().begin(async (tx) => {
    await tx`update words set lines = ${lines}, boxes = ${boxes},
      revision = (select revision from shots where id = ${id}) where shot_id = ${id}`;
    await tx`update jobs set state = 'done' where id = ${id}`;
    await indexShot(tx, id);
  });
}

export const SCREEN = { width: 420, height: 120 };
const FONT = 'public/fonts/atkinson-hyperlegible-next-latin-400-normal.ttf';

/** Lines of words as a screen shows them. */
function written(lines: readonly string[]) {
  GlobalFonts.registerFromPath(FONT, 'Screen');
  const canvas = createCanvas(SCREEN.width, SCREEN.height);
  const surface = canvas.getContext('2d');
  surface.fillStyle = '#ffffff';
  surface.fillRect(0, 0, SCREEN.width, SCREEN.height);
  surface.fillStyle = '#202020';
  surface.font = '18px Screen';
  lines.forEach((line, i) => surface.fillText(line, 12, 30 + i * 34));
  return canvas;
}

/** As PNG. */
export const screen = (...lines: string[]): Promise<Buffer> => written(lines).encode('png');

/** As RGBA, row after row. */
export const screenPixels = (...lines: string[]): Buffer => written(lines).data();

/** Everything that waits is due now, and done. */
export async function readAll(): Promise<void> {
  await sql()`update jobs set due_at = now() where kind = 'words' and state = 'waiting'`;
  delete shared<{ lastAct?: number }>('quiet', () => ({})).lastAct;
  await workAlone('words');
}
