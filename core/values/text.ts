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

/** The text as a line that `line` takes: what no line holds becomes a space, what is too long is cut. */
export const asLine = (text: string, most: number): string =>
  text
    .toWellFormed()
    .replaceAll('\ufffd', ' ')
    .replace(/[\u0000-\u001f\u007f]/g, ' ')
    .slice(0, most)
    .toWellFormed()
    .replaceAll('\ufffd', '')
    .trim();
