import { sql } from '../db/sql';
import { indexShot } from '../indexing/indexing';
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
