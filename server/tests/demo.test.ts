import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { sql } from '../db/sql';
import { fillDemo } from '../demo/fill';
import { filmOf } from '../clips/rows';
import { lookedThrough } from './clipLib';
import { picturesIn } from './clipFilms';
import { begin, finish } from './setup';

beforeAll(begin, 60_000);
afterAll(finish);

const counted = async (): Promise<unknown> => {
  const [row] = await sql()`select (select count(*) from shots) as shots,
    (select count(*) from folders) as folders, (select count(*) from copies) as copies,
    (select count(*) from guides) as guides, (select count(*) from clips) as clips,
    (select count(*) from series) as series, (select count(*) from routines) as routines`;
  return row;
};

test('what is shown of Rezzik is made by its own code: shots, guides, a series, clips that move; once', async () => {
  await fillDemo(new Date('2026-06-15T10:00:00Z'));
  const made = await counted();
  for (const count of Object.values(made as Record<string, string>))
    expect(Number(count)).toBeGreaterThan(0);
  const clips = await sql()<{ id: string; title: string }[]>`
    select s.id, s.title from shots s join clips c on c.shot_id = s.id order by s.title`;
  expect(clips.map(({ title }) => title)).toEqual(['A sensor fails', 'Ordering seeds']);
  for (const { id, title } of clips) {
    const clip = await lookedThrough(id);
    expect(clip.times.length).toBeGreaterThan(60);
    // The pointer is on its way: pictures differ.
    expect(clip.changes?.length).toBeGreaterThan(0);
    expect(clip.document.marks).toHaveLength(title === 'A sensor fails' ? 2 : 0);
    const { path } = await filmOf(id);
    expect(picturesIn(path).pictures).toHaveLength(clip.times.length);
  }
  await fillDemo();
  expect(await counted()).toEqual(made);
}, 180_000);
