import { z } from 'zod';

/** Half of a surrogate pair on its own, or U+0000: PostgreSQL takes neither. */
const UNSTORABLE = /\u0000|[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/;

/** Text of at most `most` UTF-16 units that any part of Rezzik can hold. */
export const text = (most: number) =>
  z
    .string()
    .max(most)
    .refine((value) => !UNSTORABLE.test(value), 'holds a character that cannot be stored');

/** One line of text: control characters are refused. */
export const line = (most: number) =>
  text(most).refine((value) => !/[\u0000-\u001f\u007f]/.test(value), 'holds a control character');
