import { expect, test } from '@jest/globals';
import type { ShotSummary } from '@/core/contracts/shot';
import { rowsOf } from './rows';

const shot = (id: string, takenAt: string): ShotSummary => ({
  id,
  title: id,
  revision: 1,
  width: 10,
  height: 10,
  source: 'desk',
  takenAt,
  binnedAt: null,
  copies: 0,
  tags: [],
});
const day = (iso: string) => iso.slice(0, 10);
const arranged = (columns: number, folded: string[] = []) => ({
  columns,
  dayOf: day,
  folded: new Set(folded),
});
const shots = [
  shot('e', '2026-11-23T15:00:00Z'),
  shot('d', '2026-11-23T14:00:00Z'),
  shot('c', '2026-11-23T13:00:00Z'),
  shot('b', '2026-11-22T12:00:00Z'),
];

test('each day has its heading, then its shots in rows', () => {
  const rows = rowsOf(shots, [], arranged(2));
  expect(rows.map((row) => row.kind)).toEqual(['day', 'shots', 'shots', 'day', 'shots']);
  expect(rows[0]).toMatchObject({ label: '2026-11-23', count: 3 });
  expect(rows.flatMap((row) => (row.kind === 'shots' ? row.shots.map((s) => s.id) : []))).toEqual([
    'e',
    'd',
    'c',
    'b',
  ]);
});

test('what waits comes first, and every row has a key of its own', () => {
  const waiting = [{ id: 'w', title: 'Waiting', takenAt: '2026-11-23T16:00:00Z' }];
  const rows = rowsOf(shots, waiting, arranged(3));
  expect(rows[0]?.kind).toBe('waiting');
  expect(new Set(rows.map((row) => row.key)).size).toBe(rows.length);
  expect(rowsOf([], [], arranged(3))).toEqual([]);
});

test('of a folded day only its heading is there; what is in order of fitness has no days', () => {
  const rows = rowsOf(shots, [], arranged(2, ['2026-11-23']));
  expect(rows.map((row) => row.kind)).toEqual(['day', 'day', 'shots']);
  expect(rows[0]).toMatchObject({ folded: true, count: 3 });
  const fittest = rowsOf(shots, [], { ...arranged(3), dayOf: null });
  expect(fittest.map((row) => row.kind)).toEqual(['shots', 'shots']);
});
