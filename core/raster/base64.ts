const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';
const values = new Map([...LETTERS].map((letter, i) => [letter, i]));

/** The bytes of a base64 text (RFC 4648 §4). @throws RangeError when it is none */
export function fromBase64(text: string): Uint8Array<ArrayBuffer> {
  const plain = text.replace(/=+$/, '');
  const out = new Uint8Array(Math.floor((plain.length * 3) / 4));
  let bits = 0;
  let held = 0;
  let at = 0;
  for (const letter of plain) {
    const value = values.get(letter);
    if (value === undefined) throw new RangeError('This is not base64.');
    held = ((held << 6) | value) & 0xffff;
    bits += 6;
    if (bits >= 8) {
      bits -= 8;
      out[at] = (held >> bits) & 0xff;
      at += 1;
    }
  }
  return out;
}

/** Bytes as base64 (RFC 4648 §4). */
export function toBase64(bytes: ArrayLike<number>): string {
  let out = '';
  for (let i = 0; i < bytes.length; i += 3) {
    const [a = 0, b, c] = [bytes[i], bytes[i + 1], bytes[i + 2]];
    const word = (a << 16) | ((b ?? 0) << 8) | (c ?? 0);
    const letter = (shift: number) => LETTERS[(word >> shift) & 63] ?? '';
    out += letter(18) + letter(12);
    out += b === undefined ? '=' : letter(6);
    out += c === undefined ? '=' : letter(0);
  }
  return out;
}
