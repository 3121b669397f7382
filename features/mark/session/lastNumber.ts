import { z } from 'zod';
import type { Mark } from '@/core/marks/registry';

const KEY = 'rezzik-last-number';
const schema = z.object({ shot: z.string(), next: z.int() });

/** Remembers how far the numbers of a shot went, so that another shot can go on from there. */
export function rememberNumbers(shot: string, marks: readonly Mark[]): void {
  const last = marks.findLast((mark) => mark.kind === 'number');
  if (last?.kind !== 'number') return;
  try {
    localStorage.setItem(KEY, JSON.stringify({ shot, next: last.value + 1 }));
  } catch {
    // Then the first number is typed.
  }
}

/** Where the numbers of the shot before this one ended, plus one; null when there is none. */
export function nextAfterOther(shot: string): number | null {
  try {
    const read = schema.safeParse(JSON.parse(localStorage.getItem(KEY) ?? 'null'));
    return read.success && read.data.shot !== shot ? read.data.next : null;
  } catch {
    return null;
  }
}
