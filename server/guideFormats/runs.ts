import type { Block, Inline } from '@/core/guide/words';

/** Letters with what is done to all of them. */
export interface Run {
  text: string;
  strong: boolean;
  emphasis: boolean;
  code: boolean;
  link: string | null;
}

const plain: Omit<Run, 'text'> = { strong: false, emphasis: false, code: false, link: null };

/** Words one after the other, each with all that is done to it; a break is a new line. */
export const runsOf = (all: readonly Inline[], so: Omit<Run, 'text'> = plain): Run[] =>
  all.flatMap((one): Run[] => {
    switch (one.kind) {
      case 'text':
        return [{ ...so, text: one.text.replaceAll('\n', ' ') }];
      case 'code':
        return [{ ...so, text: one.text.replaceAll('\n', ' '), code: true }];
      case 'break':
        return [{ ...so, text: '\n' }];
      case 'strong':
        return runsOf(one.of, { ...so, strong: true });
      case 'emphasis':
        return runsOf(one.of, { ...so, emphasis: true });
      case 'link':
        return runsOf(one.of, { ...so, link: one.to });
    }
  });

/** A line of a caption: how deep it lies, what stands before it, and its words. */
export interface Line {
  depth: number;
  /** A number, a dot, or nothing. */
  before: string;
  quoted: boolean;
  runs: Run[];
}

/** A caption as lines, for formats that know no nested lists. */
export function linesOf(blocks: readonly Block[], depth = 0, quoted = false): Line[] {
  const line = (runs: Run[]): Line => ({ depth, before: '', quoted, runs });
  return blocks.flatMap((block): Line[] => {
    switch (block.kind) {
      case 'paragraph':
        return [line(runsOf(block.of))];
      case 'code':
        return [line([{ ...plain, text: block.text, code: true }])];
      case 'quote':
        return linesOf(block.of, depth + 1, true);
      case 'list':
        return block.items.flatMap((item, i) => {
          const [first, ...rest] = linesOf(item, depth + 1, quoted);
          const before = block.start === null ? '•' : `${block.start + i}.`;
          return [{ ...(first ?? { ...line([]), depth: depth + 1 }), before }, ...rest];
        });
    }
  });
}
