import {
  placeOf,
  type PlaceName,
  type ResultOf,
  type StepOf,
  type ThenStep,
} from '../places/registry';

/**
 * How one side, the page or the server, does what it can do with a shot: each tells what became of
 * it, or throws words for the person. Where a place is missing, only the other side can do it.
 */
export type Doers<Shot> = {
  [N in PlaceName]?: (shot: Shot, step: StepOf<N>) => Promise<ResultOf<N>>;
};

/** Who is told how it goes. */
export interface Hearer {
  begins?: (step: ThenStep) => void;
  /** Asked before each step of several: false when the shot is not wanted any more. */
  isWanted?: () => boolean;
  done: (step: ThenStep, said: string) => void;
  /** `words` say what did not happen and why; `error` is what was thrown. */
  failed: (step: ThenStep, words: string, error: unknown) => void;
}

/** Said beside what failed, so that nobody fears for the picture. */
export const SAFE = 'The shot is safe on the Shelf.';

const wordsOf = (error: unknown): string =>
  error instanceof Error ? error.message : String(error);

/** Does one thing with a shot, and tells how it went; it never throws. */
export async function doStep<Shot>(
  step: ThenStep,
  shot: Shot,
  doers: Doers<Shot>,
  hear: Hearer,
  explain: (error: unknown) => string = wordsOf,
): Promise<void> {
  const place = placeOf(step);
  // A step goes only to the doer of its own place, which the type system cannot follow.
  const act = doers[step.do] as ((shot: Shot, step: ThenStep) => Promise<unknown>) | undefined;
  if (!act)
    return hear.done(step, place.elsewhere ?? `${place.label(step)}: only in Rezzik’s page`);
  hear.begins?.(step);
  try {
    hear.done(step, place.said(await act(shot, step)));
  } catch (error) {
    hear.failed(step, `${place.failing} ${explain(error)}`, error);
  }
}

/**
 * “Take, then …”: does everything in its order, each after the one before; what fails is told and
 * stops nothing else. What only shows a view is done first, so that nobody waits for it, and nothing
 * waits for what may wait for the person.
 */
export async function doSteps<Shot>(
  steps: readonly ThenStep[],
  ...how: [shot: Shot, doers: Doers<Shot>, hear: Hearer, explain?: (error: unknown) => string]
): Promise<void> {
  const { isWanted = () => true } = how[2];
  const [first, after] = [true, false].map((shows) =>
    steps.filter((step) => (placeOf(step).shows ?? false) === shows),
  );
  const waiting: Promise<void>[] = [];
  for (const step of [...(first ?? []), ...(after ?? [])]) {
    if (!isWanted()) break;
    const going = doStep(step, ...how);
    if (placeOf(step).waits) waiting.push(going);
    else await going;
  }
  await Promise.all(waiting);
}
