import { z } from 'zod';
import type { Place } from './contract';
import * as places from './list';

type Places = typeof places;
export type PlaceName = keyof Places;
export type StepOf<N extends PlaceName> = z.infer<Places[N]['step']>;
export type ResultOf<N extends PlaceName> = Parameters<Places[N]['said']>[0];

const [anyStep, ...otherSteps] = Object.values(places).map(({ step }) => step);
if (!anyStep) throw new Error('There are no places.');

/** One thing done with a shot that was just taken. */
export const thenStepSchema = z.discriminatedUnion('do', [anyStep, ...otherSteps]);
export type ThenStep = StepOf<PlaceName>;

/** The place a step names, seen as a place of any step: it is only given its own. */
export const placeOf = (step: ThenStep): Place<z.ZodObject, unknown> => {
  const of: Record<PlaceName, Place<z.ZodObject, never>> = places;
  return of[step.do] as Place<z.ZodObject, unknown>;
};

/** What a step is called where its place is not known by name. */
export const stepLabel = (step: ThenStep): string => placeOf(step).label(step);

export const sameStep = (a: ThenStep, b: ThenStep): boolean =>
  JSON.stringify(a) === JSON.stringify(b);
