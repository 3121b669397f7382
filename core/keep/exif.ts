import type { Size } from '../geometry/size';
import type { Facts } from './facts';
import { joined, latin, utf8 } from './bytes';

/** An entry of a directory of TIFF: what a tag says, as bytes. */
interface Entry {
  tag: number;
  type: number;
  count: number;
  data: Uint8Array;
}

const ASCII = 2;
const SHORT = 3;
const LONG = 4;
const RATIONAL = 5;
const UNDEFINED = 7;

const EXIF_DIRECTORY = 34_665;
const XMP = 700;
const INCH = 2;
const SRGB = 1;
const BYTE = 1;

/** Numbers as little-endian ones of so many bytes. */
const numbers = (bytes: 2 | 4, ...values: number[]): Uint8Array => {
  const data = new Uint8Array(values.length * bytes);
  const view = new DataView(data.buffer);
  values.forEach((value, i) =>
    bytes === 2 ? view.setUint16(i * 2, value, true) : view.setUint32(i * 4, value, true),
  );
  return data;
};
const short = (tag: number, value: number): Entry => ({
  tag,
  type: SHORT,
  count: 1,
  data: numbers(2, value),
});
const long = (tag: number, value: number): Entry => ({
  tag,
  type: LONG,
  count: 1,
  data: numbers(4, value),
});
const ratio = (tag: number, value: number): Entry => ({
  tag,
  type: RATIONAL,
  count: 1,
  data: numbers(4, value, 1),
});
const bytes = (tag: number, type: number, data: Uint8Array): Entry => ({
  tag,
  type,
  count: data.length,
  data,
});
const ascii = (tag: number, text: string): Entry[] =>
  text && isPlain(text) ? [bytes(tag, ASCII, latin(`${text}\0`))] : [];

/** What a tag of ASCII can hold. */
const isPlain = (text: string): boolean => /^[\n\r\t -~]*$/.test(text);

/** Times stand as 2026:11:23 14:02:11, with how far they are from UTC apart (CIPA DC-008, 4.6.5, 4.6.6). */
const exifTime = (at: string): string => at.slice(0, 19).replace(/-/g, ':').replace('T', ' ');
const offsetOf = (at: string): string => /[+-]\d\d:\d\d$/.exec(at)?.[0] ?? (at && '+00:00');

/** Words with letters beyond ASCII, in UTF-16 in the order of the file (CIPA DC-008, UserComment). */
function comment(text: string): Entry[] {
  if (!text || isPlain(text)) return [];
  const units = Array.from({ length: text.length }, (_, i) => text.charCodeAt(i));
  return [bytes(37_510, UNDEFINED, joined([latin('UNICODE\0'), numbers(2, ...units)]))];
}

const wordsOf = ({ description, title }: Facts): string => description || title;

const mainEntries = (facts: Facts): Entry[] => [
  ...ascii(270, wordsOf(facts)),
  ratio(282, facts.density),
  ratio(283, facts.density),
  short(296, INCH),
  ...ascii(305, facts.software),
  ...ascii(306, exifTime(facts.takenAt)),
];

const exifEntries = (facts: Facts, { width, height }: Size): Entry[] => [
  bytes(36_864, UNDEFINED, latin('0232')),
  ...ascii(36_867, exifTime(facts.takenAt)),
  ...ascii(36_880, offsetOf(facts.takenAt)),
  ...ascii(36_881, offsetOf(facts.takenAt)),
  ...comment(wordsOf(facts)),
  short(40_961, SRGB),
  long(40_962, width),
  long(40_963, height),
];

/**
 * A directory with what its entries point to behind it.
 * @param at where it will lie, bytes from the beginning; even
 */
function directory(entries: readonly Entry[], at: number): Uint8Array {
  const sorted = [...entries].sort((a, b) => a.tag - b.tag);
  const head = new Uint8Array(2 + 12 * sorted.length + 4);
  const view = new DataView(head.buffer);
  view.setUint16(0, sorted.length, true);
  const behind: Uint8Array[] = [];
  let next = at + head.length;
  sorted.forEach(({ tag, type, count, data }, i) => {
    const entry = 2 + 12 * i;
    view.setUint16(entry, tag, true);
    view.setUint16(entry + 2, type, true);
    view.setUint32(entry + 4, count, true);
    if (data.length <= 4) return head.set(data, entry + 8);
    view.setUint32(entry + 8, next, true);
    const padded = new Uint8Array(data.length + (data.length % 2));
    padded.set(data);
    behind.push(padded);
    next += padded.length;
  });
  return joined([head, ...behind]);
}

/** Both directories, the second behind the first. */
function directories(main: readonly Entry[], exif: readonly Entry[], at: number): Uint8Array {
  const length = directory([...main, long(EXIF_DIRECTORY, 0)], at).length;
  const second = at + length;
  return joined([directory([...main, long(EXIF_DIRECTORY, second)], at), directory(exif, second)]);
}

const HEADER = Uint8Array.of(0x49, 0x49, 42, 0, 8, 0, 0, 0);

/**
 * The facts as an Exif block: description, software, time with its offset, colours, size.
 * Source: CIPA DC-008-2019 (Exif 2.32), 4.6.4 and 4.6.5
 */
export const exifBlock = (facts: Facts, size: Size): Uint8Array<ArrayBuffer> =>
  joined([HEADER, directories(mainEntries(facts), exifEntries(facts, size), HEADER.length)]);

/** The texts of such a block by the names of their tags; none that a tag of ASCII cannot hold. */
export function exifTexts(facts: Facts): {
  main: Record<string, string>;
  exif: Record<string, string>;
} {
  const told = (texts: Record<string, string>): Record<string, string> =>
    Object.fromEntries(Object.entries(texts).filter(([, text]) => text && isPlain(text)));
  const [time, offset] = [exifTime(facts.takenAt), offsetOf(facts.takenAt)];
  return {
    main: told({ ImageDescription: wordsOf(facts), Software: facts.software, DateTime: time }),
    exif: told({ DateTimeOriginal: time, OffsetTime: offset, OffsetTimeOriginal: offset }),
  };
}

/**
 * A little-endian TIFF with the facts as tags of its own and in an Exif directory: its directory is
 * written anew behind all else (TIFF 6.0, section 2).
 */
export function withTiffFacts(tiff: Uint8Array, facts: Facts, size: Size, xmp: string): Uint8Array {
  const view = new DataView(tiff.buffer, tiff.byteOffset, tiff.byteLength);
  const at = view.getUint32(4, true);
  const own = Array.from({ length: view.getUint16(at, true) }, (_, i): Entry => {
    const entry = at + 2 + 12 * i;
    const type = view.getUint16(entry + 2, true);
    // Its value, or where that lies: either way these four bytes.
    const data = tiff.slice(entry + 8, entry + 12);
    return { tag: view.getUint16(entry, true), type, count: view.getUint32(entry + 4, true), data };
  });
  const packet = utf8(xmp);
  const added = [...mainEntries(facts), ...(packet.length ? [bytes(XMP, BYTE, packet)] : [])];
  const tags = new Set(added.map(({ tag }) => tag));
  const main = [...own.filter(({ tag }) => !tags.has(tag)), ...added];
  const start = tiff.length + (tiff.length % 2);
  const whole = joined([
    tiff,
    new Uint8Array(start - tiff.length),
    directories(main, exifEntries(facts, size), start),
  ]);
  new DataView(whole.buffer).setUint32(4, start, true);
  return whole;
}
