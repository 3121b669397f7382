import { useState } from 'react';
import type { SeriesEntry } from '@/core/contracts/series';
import { limits } from '@/core/values/limits';
import { api } from '../api/client';
import { useAnswer } from '../api/useAnswer';

/** It is looked again so often what became of them, ms. */
const AGAIN = 3_000;

/** The last times of a day, so many pages of them, the last first. */
async function lastTimes(id: string, day: string, pages: number): Promise<SeriesEntry[]> {
  const found: SeriesEntry[] = [];
  for (let page = 0; page < pages; page += 1) {
    const more = await api.seriesTimes(id, day, found.at(-1)?.at);
    found.push(...more);
    if (more.length < limits.pageSize) break;
  }
  return found;
}

/** What became of the times of a day, in their order: the last of them, and earlier ones when asked. */
export function useDayTimes(id: string, day: string) {
  const [wanted, setWanted] = useState({ day, pages: 1 });
  const pages = wanted.day === day ? wanted.pages : 1;
  const { answer, problem, again } = useAnswer(
    async () => ({ day, entries: await lastTimes(id, day, pages) }),
    `${id} ${day} ${pages}`,
    { keep: true, next: () => AGAIN },
  );
  // Of another day, as long as this one is not there yet.
  const entries = answer?.day === day ? answer.entries : null;
  const hasMore = entries !== null && entries.length >= pages * limits.pageSize;
  return {
    entries: entries && [...entries].reverse(),
    problem,
    again,
    earlier: hasMore ? () => setWanted({ day, pages: pages + 1 }) : null,
  };
}
