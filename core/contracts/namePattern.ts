import { patternProblem } from '../naming/pattern';
import { limits } from '../values/limits';
import { line } from '../values/text';

/** A pattern that names of files are made by. */
export const namePattern = line(limits.patternLength).superRefine((value, context) => {
  const problem = patternProblem(value);
  if (problem) context.addIssue({ code: 'custom', message: problem });
});
