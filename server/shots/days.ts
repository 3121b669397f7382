import type { DayCount } from '@/core/contracts/search';
import { sql } from '../db/sql';

const two = (n: number): string => String(n).padStart(2, '0');

/**
 * How many shots were taken on each day of a month, as the clock of this computer counts days.
 * @param month 2026-11
 */
export async function daysOf(month: string): Promise<DayCount[]> {
  const [year = 0, number = 1] = month.split('-').map(Number);
  const start = new Date(year, number - 1, 1);
  const end = new Date(year, number, 1);
  const rows = await sql()<{ takenAt: Date }[]>`
    select taken_at from shots
    where binned_at is null and taken_at >= ${start} and taken_at < ${end}`;
  const counts = new Map<string, number>();
  for (const { takenAt: at } of rows) {
    const day = `${month}-${two(at.getDate())}`;
    counts.set(day, (counts.get(day) ?? 0) + 1);
  }
  return [...counts].sort().map(([day, shots]) => ({ day, shots }));
}
