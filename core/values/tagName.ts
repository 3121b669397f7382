import { limits } from './limits';
import { line } from './text';

/** Without quotes, which would end it where it is asked for. */
export const tagName = line(limits.tagLength)
  .trim()
  .min(1, 'must not be empty')
  .regex(/^[^"“”„]*$/, 'must have no quotes')
  .refine(
    (name) => /[\p{L}\p{N}\p{Extended_Pictographic}]/u.test(name),
    'needs a letter or a digit',
  );
