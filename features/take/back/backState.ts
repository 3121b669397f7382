import { create } from 'zustand';
import type { TakenFrom } from '@/core/contracts/way';
import type { HeldMoment, HoldingFacts } from '../sources/contract';

/** Moments that are looked through; none comes or goes meanwhile. */
export interface Film {
  source: TakenFrom;
  /** Oldest first; at least one. */
  moments: readonly HeldMoment[];
  /** When it was opened, ms of the clock. */
  now: number;
  /** The one that is seen, by its place among them. */
  at: number;
  /** Those that are wanted beside it, by their ids. */
  chosen: readonly number[];
}

interface BackStore {
  /** The source of which the last seconds are held; off at the start. */
  on: TakenFrom | null;
  /** It is being switched on. */
  begins: boolean;
  facts: HoldingFacts | null;
  /** Why it is off, where that was not asked for. */
  problem: string | null;
  film: Film | null;
}

/** How looking back stands in this page. */
export const useBack = create<BackStore>(() => ({
  ...{ on: null, begins: false, facts: null, problem: null, film: null },
}));

/** The moment that is seen. */
export const momentOf = ({ moments, at }: Film): HeldMoment | undefined => moments[at];

/** Goes to another moment of the film, as far as there is one. */
export function goTo(at: number): void {
  const { film } = useBack.getState();
  if (!film) return;
  const last = film.moments.length - 1;
  useBack.setState({ film: { ...film, at: Math.max(0, Math.min(last, at)) } });
}

/** The moment that is seen is wanted too, or not any more. */
export function toggleMoment(): void {
  const { film } = useBack.getState();
  const moment = film && momentOf(film);
  if (!moment) return;
  const others = film.chosen.filter((id) => id !== moment.id);
  const isOn = others.length < film.chosen.length;
  useBack.setState({ film: { ...film, chosen: isOn ? others : [...others, moment.id] } });
}

/** The moments that Enter takes, oldest first: those that were chosen, else the one that is seen. */
export function wantedOf(film: Film): HeldMoment[] {
  const chosen = film.moments.filter(({ id }) => film.chosen.includes(id));
  const seen = momentOf(film);
  return chosen.length > 0 || !seen ? chosen : [seen];
}
