import { z } from 'zod';
import { encodeShape, formatNames, type FormatOptions } from '@/core/contracts/format';
import { fit } from '../http/body';
import { withouts } from './asItLeaves';
import type { EncodeWish } from './encode';
import { formats } from '../formats';

const flag = z.enum(['0', '1']).transform((text) => text === '1');

const querySchema = z.strictObject({
  ...encodeShape,
  format: z.enum(formatNames).default('png'),
  /** Facts to be written into the file, as folders have rules for: words, and where from. */
  words: flag.default(true),
  origin: flag.default(false),
  without: z.enum(withouts).optional(),
});
const numbers = [
  'quality',
  'width',
  'height',
  'longest',
  'percent',
  'maxBytes',
  'density',
  'first',
];

/** The cache-breaking number that addresses of pictures carry. */
const IGNORED = ['r'];

/**
 * How a picture is asked for in an address: the fields of POST …/copies, and each option of the
 * format by its own name. @throws Fault 400
 */
export function readPictureQuery(query: URLSearchParams): EncodeWish {
  const all = Object.fromEntries([...query].filter(([name]) => !IGNORED.includes(name)));
  const format = fit(all.format ?? 'png', z.enum(formatNames));
  const fields = new Map(formats[format].fields.map((field) => [field.name, field]));
  const options: FormatOptions = {};
  const read: Record<string, string | number> = {};
  for (const [name, text] of Object.entries(all)) {
    const field = fields.get(name);
    if (!field) {
      read[name] = numbers.includes(name) ? Number(text) : text;
      continue;
    }
    options[name] =
      field.kind === 'switch'
        ? text === 'true' || text === '1'
        : field.kind === 'number'
          ? Number(text)
          : text;
  }
  const { words, origin, ...wish } = fit(read, querySchema);
  return { ...wish, options, facts: { words, origin } };
}
