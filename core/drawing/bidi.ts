import bidiFactory from 'bidi-js';

/** A part of a line that runs one way. */
export interface VisualRun {
  text: string;
  /** Where it begins in the line, in UTF-16 units. */
  from: number;
  rightToLeft: boolean;
}

const bidi = bidiFactory();
/** Hebrew to Thaana and their presentation forms; without any of them a line needs no ordering. */
const RIGHT_TO_LEFT = /[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufeff]/;

/** The runs of one line from left to right, as they are seen (Unicode Standard Annex 9). */
export function visualRuns(line: string): VisualRun[] {
  if (!RIGHT_TO_LEFT.test(line)) return [{ text: line, from: 0, rightToLeft: false }];
  const { levels } = bidi.getEmbeddingLevels(line);
  const runs: { text: string; from: number; level: number }[] = [];
  for (let i = 0; i < line.length; i += 1) {
    const level = levels[i] ?? 0;
    const last = runs.at(-1);
    if (last?.level === level) last.text += line[i] ?? '';
    else runs.push({ text: line[i] ?? '', from: i, level });
  }
  return reordered(runs).map(({ text, from, level }) => ({
    text,
    from,
    rightToLeft: level % 2 === 1,
  }));
}

/** Rule L2: from the highest level down, every stretch of at least that level is turned around. */
function reordered<R extends { level: number }>(runs: readonly R[]): R[] {
  const all = [...runs];
  const highest = Math.max(0, ...all.map((run) => run.level));
  for (let level = highest; level >= 1; level -= 1) {
    for (let i = 0; i < all.length; i += 1) {
      let end = i;
      while ((all[end]?.level ?? -1) >= level) end += 1;
      if (end > i) all.splice(i, end - i, ...all.slice(i, end).reverse());
      i = Math.max(i, end);
    }
  }
  return all;
}

/** True when a text begins with a script that runs to the left. */
export const startsRight = (text: string): boolean =>
  (bidi.getEmbeddingLevels(text).paragraphs[0]?.level ?? 0) % 2 === 1;
