import { open } from 'node:fs/promises';
import { isFilm } from '@/core/contracts/clipCopy';
import { LOOKED_AT, movingFacts, type MovingForm } from '@/core/keep/moving';
import type { Writing } from './written';

const isMoving = (format: Writing['format']): format is MovingForm => !isFilm(format);

/** Puts title and description into a moving picture; films have them from the program that wrote them. */
export async function sayInside(
  path: string,
  { format, title, description }: Pick<Writing, 'format' | 'title' | 'description'>,
): Promise<void> {
  if (!isMoving(format)) return;
  const file = await open(path, 'r+');
  try {
    const { size: length } = await file.stat();
    const [first, last] = [Buffer.alloc(LOOKED_AT.first), Buffer.alloc(LOOKED_AT.last)];
    await file.read(first, 0, first.length, 0);
    await file.read(last, 0, last.length, Math.max(0, length - last.length));
    const words = { title: title ?? '', description: description ?? '' };
    for (const { at, bytes } of movingFacts(format, { length, first, last }, words))
      await file.write(bytes, 0, bytes.length, at);
  } finally {
    await file.close();
  }
}
