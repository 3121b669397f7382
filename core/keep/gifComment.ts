import { joined, utf8 } from './bytes';

const MOST_BLOCK = 255;

/** Words as a comment extension (GIF89a, §24). */
export function commentOf(words: string): Uint8Array {
  const text = utf8(words);
  const blocks: Uint8Array[] = [];
  for (let at = 0; at < text.length; at += MOST_BLOCK) {
    const part = text.subarray(at, at + MOST_BLOCK);
    blocks.push(Uint8Array.of(part.length), part);
  }
  return joined([Uint8Array.of(0x21, 0xfe), ...blocks, Uint8Array.of(0)]);
}
