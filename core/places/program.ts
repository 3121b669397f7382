import { z } from 'zod';
import { line } from '../values/text';
import { place } from './contract';

/** Kept in the default folder, and the copy opened by a listed program. */
export const program = place({
  step: z.strictObject({ do: z.literal('program'), program: line(100).min(1) }),
  label: (step) => `Hand to ${step.program}`,
  said: ({ path, by }: { path: string; by: string }) => `Kept, and opened in ${by}: ${path}`,
  failing: 'Not handed on.',
});
