import { z } from 'zod';
import { create } from 'zustand';
import { thenStepSchema, type ThenStep } from '@/core/places/registry';

const outcomeSchema = z.object({
  /** Tells the outcomes of one take apart. */
  key: z.string(),
  state: z.enum(['going', 'done', 'failed']),
  said: z.string(),
  /** What to do to try it again. */
  step: thenStepSchema.optional(),
});
export type Outcome = z.infer<typeof outcomeSchema>;

const entrySchema = z.object({
  id: z.string(),
  title: z.string(),
  at: z.iso.datetime(),
  /** Thrown away since. */
  gone: z.boolean().default(false),
  outcomes: z.array(outcomeSchema),
});
export type Entry = z.infer<typeof entrySchema>;
const trailSchema = z.array(entrySchema);

/** So many of the last takes are remembered. */
export const LENGTH = 20;
const KEY = 'rezzik-trail';

/** The last takes, newest first, and what became of each: remembered by this browser. */
export const useTrail = create<{ entries: readonly Entry[] }>(() => ({ entries: read() }));

/** What was still going on when the page went away was cut off. */
const cutOff = (outcome: Outcome): Outcome =>
  outcome.state === 'going'
    ? { ...outcome, state: 'failed', said: `${outcome.said} was cut off when the page was left.` }
    : outcome;

function read(): Entry[] {
  try {
    const parsed = trailSchema.safeParse(JSON.parse(localStorage.getItem(KEY) ?? '[]'));
    return parsed.success ? parsed.data : [];
  } catch {
    return [];
  }
}

function change(recipe: (entries: readonly Entry[]) => readonly Entry[]): void {
  const entries = recipe(useTrail.getState().entries).slice(0, LENGTH);
  useTrail.setState({ entries });
  try {
    localStorage.setItem(KEY, JSON.stringify(entries));
  } catch {
    // A browser that keeps nothing still has the trail until the page is left.
  }
}

/** Takes up what this browser remembers, and what other tabs add. */
export function followTrail(): () => void {
  change((entries) => entries.map((entry) => ({ ...entry, outcomes: entry.outcomes.map(cutOff) })));
  const other = (event: StorageEvent) =>
    event.key === KEY && useTrail.setState({ entries: read() });
  window.addEventListener('storage', other);
  return () => window.removeEventListener('storage', other);
}

/** A take begins its entry. */
export const beginEntry = (id: string, title: string, at: string): void =>
  change((entries) => [
    { id, title, at, gone: false, outcomes: [] },
    ...entries.filter((entry) => entry.id !== id),
  ]);

/** What became of a take in one place; a later word on the same place replaces the earlier one. */
export const noteOutcome = (id: string, outcome: Outcome): void =>
  change((entries) =>
    entries.map((entry) =>
      entry.id === id
        ? {
            ...entry,
            outcomes: [...entry.outcomes.filter(({ key }) => key !== outcome.key), outcome],
          }
        : entry,
    ),
  );

/** A take that was thrown away, or a name that was changed. */
export const changeEntry = (id: string, to: Partial<Pick<Entry, 'title' | 'gone'>>): void =>
  change((entries) => entries.map((entry) => (entry.id === id ? { ...entry, ...to } : entry)));

/** Whether a take was thrown away. */
export const isGone = (id: string): boolean =>
  useTrail.getState().entries.some((entry) => entry.id === id && entry.gone);

export const outcomeKey = (step: ThenStep): string => JSON.stringify(step);
