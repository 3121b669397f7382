import type { ShotSummary } from '@/core/contracts/shot';
import type { Waiting } from '../outbox/outbox';

export type Row =
  | { kind: 'waiting'; key: string; entry: Waiting }
  | { kind: 'day'; key: string; label: string; count: number }
  | { kind: 'shots'; key: string; shots: ShotSummary[] };

/** The rows of the Shelf: what waits, then each day with its shots in rows of `columns`. */
export function rowsOf(
  shots: readonly ShotSummary[],
  waiting: readonly Waiting[],
  columns: number,
  dayOf: (iso: string) => string,
): Row[] {
  const rows: Row[] = waiting.map((entry) => ({ kind: 'waiting', key: `w${entry.id}`, entry }));
  const days = new Map<string, ShotSummary[]>();
  for (const shot of shots) {
    const day = dayOf(shot.takenAt);
    days.set(day, [...(days.get(day) ?? []), shot]);
  }
  for (const [label, ofDay] of days) {
    rows.push({ kind: 'day', key: `d${label}`, label, count: ofDay.length });
    for (let i = 0; i < ofDay.length; i += columns) {
      const part = ofDay.slice(i, i + columns);
      rows.push({ kind: 'shots', key: `s${part[0]?.id ?? i}`, shots: part });
    }
  }
  return rows;
}
