import type { FormatFacts, SizeWish } from '@/core/contracts/format';
import type { Rules } from '@/core/contracts/rules';
import { factsFor } from '../keep/useFormats';
import { formatBytes } from '../ui/format';

function sizeInWords({ width, height, longest, percent }: SizeWish): string | null {
  if (width !== undefined && height !== undefined) return `${width} × ${height} px`;
  if (width !== undefined) return `${width} px wide`;
  if (height !== undefined) return `${height} px high`;
  if (percent !== undefined) return `${percent} %`;
  return longest === undefined ? null : `longest side ${longest} px`;
}

/** What a place does with pictures, in a line: format, quality, size, bytes, facts. */
export function rulesInWords(
  { format, quality, size, maxBytes, facts }: Omit<Rules, 'pattern' | 'options'>,
  formats: readonly FormatFacts[],
): string {
  const known = factsFor(formats, format);
  return [
    known?.label ?? format.toUpperCase(),
    known?.quality && `quality ${quality}`,
    sizeInWords(size),
    maxBytes !== null && `at most ${formatBytes(maxBytes)}`,
    facts.origin && 'with address and window',
    !facts.words && !facts.origin && 'without facts',
  ]
    .filter(Boolean)
    .join(', ');
}
