import type { z } from 'zod';

/** What was done at a place, and is said of it. */
type Saying<R> = (result: R) => string;

/**
 * A place: what can happen with a picture after a take, or in Keep. Here is what it is called and
 * what is said of it; how it is done, the page says in features/keep/places and the server in
 * server/places, each as far as it can.
 */
export interface Place<S extends z.ZodObject, R> {
  /** How a way says it: `do` names the place. */
  step: S;
  /** What it is called where its own name (of a folder, say) is not known. */
  label(step: z.infer<S>): string;
  /** Said of what became of it. */
  said: Saying<R>;
  /** Said before the reason when it fails. */
  failing: string;
  /** Said where only Rezzik's page can do it. */
  elsewhere?: string;
  /** It shows a view: that need not wait until the shot is stored, nor for what comes before it. */
  shows?: true;
}

/** For its types only: what a place says is checked where it is written. */
export const place = <S extends z.ZodObject, R>(facts: Place<S, R>): Place<S, R> => facts;
