import {
  placeOf,
  type PlaceName,
  type ResultOf,
  type StepOf,
  type ThenStep,
} from '../places/registry';

/**
 * How one side, the page or the server, does what it can do with a shot: each tells what became of
 * it, or throws words for the person. Where a place is missing, only the other side can do it. One
 * that has to wait until the person comes back calls `goOn`: what follows does not wait for that.
 */
export type Doers<Shot> = {
  [N in PlaceName]?: (shot: Shot, step: StepOf<N>, goOn: () => void) => Promise<ResultOf<N>>;
};

/** Who is told how it goes. */
export interface Hearer {
  begins?: (step: ThenStep) => void;
  done: (step: ThenStep, said: string) => void;
  /** `words` say what did not happen and why; `error` is what was thrown. */
  failed: (step: ThenStep, words: string, error: unknown) => void;
  /** Asked before each step of several: false when the shot is not wanted any more. */
  isWanted?: () => boolean;
  /** A step that was not begun, since the shot was not wanted any more. */
  left?: (step: ThenStep) => void;
}

/** Said beside what failed, so that nobody fears for the picture. */
export const SAFE = 'The shot is safe on the Shelf.';

const wordsOf = (error: unknown): string =>
  error instanceof Error ? error.message : String(error);

/** Who does the steps of a shot, who hears of it, and how errors are put into words. */
interface How<Shot> {
  doers: Doers<Shot>;
  hear: Hearer;
  explain?: (error: unknown) => string;
}

/**
 * Does one thing with a shot, and tells how it went; it never throws.
 * @param goOn called when all that is left is to wait for the person
 */
export async function doStep<Shot>(
  step: ThenStep,
  shot: Shot,
  { doers, hear, explain = wordsOf }: How<Shot>,
  goOn: () => void = () => undefined,
): Promise<void> {
  const place = placeOf(step);
  // A step goes only to the doer of its own place, which the type system cannot follow.
  const act = doers[step.do] as
    ((shot: Shot, step: ThenStep, goOn: () => void) => Promise<unknown>) | undefined;
  if (!act) {
    return hear.done(step, place.elsewhere ?? `${place.label(step)}: only in Rezzik’s page`);
  }
  hear.begins?.(step);
  try {
    hear.done(step, place.said(await act(shot, step, goOn)));
  } catch (error) {
    hear.failed(step, `${place.failing} ${explain(error)}`, error);
  }
}

/**
 * “Take, then …”: does everything in its order, each after the one before; what fails is told and
 * stops nothing else. What only shows a view is done first, so that nobody waits for it.
 */
export async function doSteps<Shot>(
  steps: readonly ThenStep[],
  shot: Shot,
  how: How<Shot>,
): Promise<void> {
  const shows = (step: ThenStep) => placeOf(step).shows === true;
  const inOrder = [...steps.filter(shows), ...steps.filter((step) => !shows(step))];
  const { isWanted = () => true, left } = how.hear;
  const all: Promise<void>[] = [];
  for (const step of inOrder) {
    if (!isWanted()) {
      left?.(step);
      continue;
    }
    await new Promise<void>((goOn) => {
      const going = doStep(step, shot, how, goOn);
      all.push(going);
      void going.then(goOn);
    });
  }
  await Promise.all(all);
}
