import { z } from 'zod';

const KEY = 'rezzik-day';
const schema = z.object({ day: z.string(), n: z.int() });

const today = (): string => new Date().toDateString();

function read(): number {
  try {
    const kept = schema.safeParse(JSON.parse(localStorage.getItem(KEY) ?? 'null'));
    return kept.success && kept.data.day === today() ? kept.data.n : 0;
  } catch {
    return 0;
  }
}

function write(n: number): void {
  try {
    localStorage.setItem(KEY, JSON.stringify({ day: today(), n }));
  } catch {
    // Then the server's count alone tells.
  }
}

/** What the server counts of today, takes by other ways among them. */
export const heardCount = (n: number): void => write(Math.max(n, read()));

/** The number of the take that is being made, today: known before the server answers. */
export function countOne(): number {
  const n = read() + 1;
  write(n);
  return n;
}
