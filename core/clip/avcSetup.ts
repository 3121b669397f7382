import { joined } from './matroska';

/*
 * What whoever unpacks H.264 must know first, as MP4 and Matroska hold it: AVCDecoderConfigurationRecord
 * (ISO/IEC 14496-15, §5.3.3.1), its sets of parameters by ITU-T H.264, §7.3.2.
 */

interface Setup {
  /** Version, profile, what it keeps to, level, and how lengths are written. */
  head: Uint8Array;
  /** Of sequences, and of pictures. */
  sequences: Uint8Array[];
  pictures: Uint8Array[];
  /** What finer profiles say at its end. */
  tail: Uint8Array;
}

const HEAD = 5;
const LEVEL = 3;
/** Lengths in four bytes. */
const FOUR = 3;
/** No set has a higher number than those of sequences may have. */
const MOST = 31;

/** @throws RangeError where it ends too soon */
function parsed(setup: Uint8Array): Setup {
  let at = HEAD;
  const byte = (): number => {
    const value = setup[at];
    if (value === undefined) throw new RangeError('it ends too soon');
    at += 1;
    return value;
  };
  const sets = (count: number): Uint8Array[] =>
    Array.from({ length: count }, () => {
      const length = 256 * byte() + byte();
      at += length;
      if (at > setup.length) throw new RangeError('it ends too soon');
      return setup.slice(at - length, at);
    });
  const sequences = sets(byte() & 0x1f);
  const pictures = sets(byte());
  return { head: setup.slice(0, HEAD), sequences, pictures, tail: setup.slice(at) };
}

/** A number of as many bits as the zeros before it (ITU-T H.264, §9.1). @param from byte */
function exponential(bytes: Uint8Array, from: number): number {
  const bit = (n: number): number => ((bytes[from + (n >> 3)] ?? 0xff) >> (7 - (n & 7))) & 1;
  let zeros = 0;
  while (bit(zeros) === 0) zeros += 1;
  let value = 1;
  for (let i = 1; i <= zeros; i += 1) value = 2 * value + bit(zeros + i);
  return value - 1;
}

/** After what it is, its profile, what it keeps to, and its level. */
const sequenceNumber = (set: Uint8Array): number => exponential(set, 4);
const pictureNumber = (set: Uint8Array): number => exponential(set, 1);

/** A number that none of its sets has; null where all are taken, or it cannot be read. */
export function freeNumber(setup: Uint8Array): number | null {
  try {
    const { sequences, pictures } = parsed(setup);
    const taken = new Set([...sequences.map(sequenceNumber), ...pictures.map(pictureNumber)]);
    for (let number = MOST; number >= 0; number -= 1) if (!taken.has(number)) return number;
    return null;
  } catch {
    return null;
  }
}

const isSame = (one: Uint8Array, other: Uint8Array): boolean =>
  one.length === other.length && one.every((byte, i) => byte === other[i]);

/** Each once; null where two of the same number differ. */
function together(
  sets: readonly Uint8Array[],
  numberOf: (set: Uint8Array) => number,
): Uint8Array[] | null {
  const byNumber = new Map<number, Uint8Array>();
  for (const set of sets) {
    const known = byNumber.get(numberOf(set));
    if (known && !isSame(known, set)) return null;
    byNumber.set(numberOf(set), set);
  }
  return [...byNumber.values()];
}

const written = (sets: readonly Uint8Array[]): Uint8Array[] =>
  sets.flatMap((set) => [Uint8Array.of(set.length >> 8, set.length & 0xff), set]);

/**
 * What must be known of pictures of several films in one: the sets of all, told apart by their
 * numbers, and what else the first of them says.
 * @returns null where they cannot stand together, or one cannot be read
 */
export function joinedSetups(setups: readonly Uint8Array[]): Uint8Array | null {
  try {
    const all = setups.map(parsed);
    const [first] = all;
    if (!first || all.some(({ head }) => ((head[4] ?? 0) & 3) !== FOUR)) return null;
    const sequences = together(
      all.flatMap((one) => one.sequences),
      sequenceNumber,
    );
    const pictures = together(
      all.flatMap((one) => one.pictures),
      pictureNumber,
    );
    if (!sequences || !pictures || sequences.length > MOST) return null;
    const head = first.head.slice();
    head[LEVEL] = Math.max(...all.map((one) => one.head[LEVEL] ?? 0));
    return joined([
      ...[head, Uint8Array.of(0xe0 | sequences.length), ...written(sequences)],
      ...[Uint8Array.of(pictures.length), ...written(pictures), first.tail],
    ]);
  } catch {
    return null;
  }
}
