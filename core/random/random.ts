/**
 * Numbers 0 ≤ n < 1 that look random and are the same for the same seed: mulberry32
 * (T. Ettinger, public domain).
 */
export function randomFrom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A seed from words: 32-bit FNV-1a over UTF-16 units. */
export function seedOf(words: string): number {
  let hash = 0x811c9dc5;
  for (let i = 0; i < words.length; i += 1) {
    hash = Math.imul(hash ^ words.charCodeAt(i), 0x01000193);
  }
  return hash >>> 0;
}
