/** Numbers 0 ≤ n < 1, the same for the same seed. */
export type Next = () => number;

export const below = (next: Next, most: number): number => Math.floor(next() * most);

export function oneOf<T>(next: Next, all: readonly T[]): T {
  const one = all[below(next, all.length)];
  if (one === undefined) throw new Error('nothing to choose from');
  return one;
}

const pieces = [
  ...['', ' ', 'a', 'Bed 7', '../', '/', '\\', '..', '.', '~', '%00', '%2e%2e', '\0', '\n', '\r\n'],
  ...[
    '{title}',
    '{n}',
    '{n:3}',
    '{n:99999999999}',
    '{date}',
    '{window}',
    '{',
    '}',
    '{{',
    '{title:}',
  ],
  ...['Ω', 'あ', 'مرحبا', '👩🏽‍🌾', '\u202e', '\ufeff', '\ud800', '\u0300'.repeat(40), 'CON', 'x.png'],
  ...[
    '<b>',
    '"',
    "'",
    '`',
    '$1',
    ';--',
    'null',
    'NaN',
    '-0',
    '1e999',
    '0x10',
    '2026-13-45',
    'http://',
  ],
  'w'.repeat(300),
  'w'.repeat(9_000),
];

/** Words as a person, a program or a fault would write them. */
export function oddText(next: Next): string {
  let text = '';
  for (let i = below(next, 5); i >= 0; i -= 1) text += oneOf(next, pieces);
  return text;
}

const numbers = [0, -0, 1, -1, 0.1, 1e-9, 255, 256, 32_767, 32_768, 65_536, 2 ** 31, -(2 ** 31)];
const oddValues: readonly ((next: Next) => unknown)[] = [
  oddText,
  (next) => oneOf(next, [...numbers, 2 ** 53, 1e21, 1e308, -1e308]),
  (next) => next() * 10 ** below(next, 12),
  () => null,
  () => true,
  () => [],
  () => ({}),
  (next) => Array.from({ length: below(next, 400) }, () => 1),
  (next) => nested(below(next, 60)),
];
export const oddValue = (next: Next): unknown => oneOf(next, oddValues)(next);

function nested(depth: number): unknown {
  let value: unknown = 1;
  for (let i = 0; i < depth; i += 1) value = i % 2 ? [value] : { a: value };
  return value;
}

/** A tree with a few of its values, names or lengths changed. */
export function changedJson(value: unknown, next: Next, share = 0.04): unknown {
  if (next() < share) return oddValue(next);
  if (Array.isArray(value)) {
    const all = value.map((one) => changedJson(one, next, share));
    if (all.length && next() < share) all.splice(below(next, all.length), 1);
    if (all.length && next() < share) all.push(...all.slice(0, 50));
    return all;
  }
  if (typeof value !== 'object' || value === null) return value;
  const entries = Object.entries(value)
    .filter(() => next() > share / 4)
    .map(([name, one]) => [name, changedJson(one, next, share)]);
  if (next() < share) entries.push([oddText(next), oddValue(next)]);
  return Object.fromEntries(entries) as unknown;
}

/** Bytes with bits turned, runs cut, doubled or overwritten, and the end lost. */
export function changedBytes(bytes: Uint8Array, next: Next): Uint8Array<ArrayBuffer> {
  let all: Buffer = Buffer.from(bytes);
  for (let i = below(next, 8); i >= 0 && all.length > 0; i -= 1) {
    // Headers decide most, so they are met more often.
    const at = next() < 0.5 ? below(next, Math.min(64, all.length)) : below(next, all.length);
    const run = all.subarray(at, at + 1 + below(next, 40));
    all = oneOf<() => Buffer>(next, [
      () => set(all, at, (all[at] ?? 0) ^ (1 << below(next, 8))),
      () => set(all, at, oneOf(next, [0, 1, 127, 128, 255])),
      () => Buffer.concat([all.subarray(0, at), run, all.subarray(at)]),
      () => Buffer.concat([all.subarray(0, at), all.subarray(at + run.length)]),
      () => all.subarray(0, at),
      () => set(set(set(set(all, at, 0), at + 1, 0x7f), at + 2, 0xff), at + 3, 0xff),
    ])();
  }
  return new Uint8Array(all);
}

function set(bytes: Buffer, at: number, value: number): Buffer {
  const copy = Buffer.from(bytes);
  if (at < copy.length) copy[at] = value;
  return copy;
}
