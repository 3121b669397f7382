/** A number of EBML (RFC 8794), as it stands in a file. */
export interface Whole {
  value: number;
  /** Where what follows begins. */
  end: number;
}

/** How many bytes a number takes is told by the zeros that its first byte begins with (RFC 8794, §4). */
const widthOf = (first: number): number => Math.clz32(first) - 23;

/**
 * Reads one.
 * @param marked whether what tells its width belongs to it
 * @returns null where bytes are missing
 */
export function whole(bytes: Uint8Array, at: number, marked: boolean): Whole | null {
  const first = bytes[at];
  if (first === undefined) return null;
  const end = at + widthOf(first);
  if (end > bytes.length) return null;
  let value = marked ? first : first & (0xff >> widthOf(first));
  for (const byte of bytes.subarray(at + 1, end)) value = 256 * value + byte;
  return { value, end };
}
