import type { ShotSummary } from '@/core/contracts/shot';
import type { Waiting } from '../outbox/outbox';

export type Row =
  | { kind: 'waiting'; key: string; entry: Waiting }
  | { kind: 'day'; key: string; label: string; count: number; folded: boolean }
  | { kind: 'shots'; key: string; shots: ShotSummary[] };

export interface Arranged {
  /** Shots beside each other. */
  columns: number;
  /** What a day is called; null where shots do not stand by day. */
  dayOf: ((iso: string) => string) | null;
  /** Days of which only the heading shows. */
  folded: ReadonlySet<string>;
}

/** The rows of the Shelf: what waits, then each day with its shots in rows. */
export function rowsOf(
  shots: readonly ShotSummary[],
  waiting: readonly Waiting[],
  { columns, dayOf, folded }: Arranged,
): Row[] {
  const rows: Row[] = waiting.map((entry) => ({ kind: 'waiting', key: `w${entry.id}`, entry }));
  const add = (some: readonly ShotSummary[]) => {
    for (let i = 0; i < some.length; i += columns) {
      const part = some.slice(i, i + columns);
      rows.push({ kind: 'shots', key: `s${part[0]?.id ?? i}`, shots: part });
    }
  };
  if (!dayOf) {
    add(shots);
    return rows;
  }
  const days = new Map<string, ShotSummary[]>();
  for (const shot of shots) {
    const day = dayOf(shot.takenAt);
    const list = days.get(day);
    if (list) list.push(shot);
    else days.set(day, [shot]);
  }
  for (const [label, ofDay] of days) {
    const isFolded = folded.has(label);
    rows.push({ kind: 'day', key: `d${label}`, label, count: ofDay.length, folded: isFolded });
    if (!isFolded) add(ofDay);
  }
  return rows;
}
