import {
  broughtKinds,
  type Archive,
  type BroughtKind,
  type Report,
} from '@/core/contracts/archive';
import { formatBytes, formatCount } from '../../ui/format';

const words: Record<BroughtKind, [one: string, many: string]> = {
  shots: ['shot', 'shots'],
  guides: ['guide', 'guides'],
  tags: ['tag', 'tags'],
  looks: ['look', 'looks'],
  searches: ['saved search', 'saved searches'],
  folders: ['folder', 'folders'],
  remotes: ['remote folder', 'remote folders'],
  routines: ['routine', 'routines'],
};

/** “3 shots, 1 guide” of those of which there are any. */
const counted = (amounts: Partial<Record<BroughtKind, number>>): string =>
  broughtKinds
    .flatMap((kind) => {
      const n = amounts[kind] ?? 0;
      return n > 0 ? [`${formatCount(n)} ${words[kind][n === 1 ? 0 : 1]}`] : [];
    })
    .join(', ');

/** What an archive was, or is about to be, in one line. */
export function whatOf({ direction, query }: Archive): string {
  if (direction === 'in') return 'In';
  return query === '' ? 'Everything out' : `Out: ${query}`;
}

/** What became of it. */
export function outcomeOf(archive: Archive): string {
  const { direction, state, progress, problem, bytes, report, endedAt } = archive;
  switch (state) {
    case 'waiting':
      return 'Waits for its turn.';
    case 'going on':
      return far(progress);
    case 'stopped':
      return problem ?? 'Stopped. What came in before stays.';
    default:
      if (!endedAt) return far(progress);
      if (!report) return 'Broken off: what was read of it until then may lie somewhere.';
      return direction === 'in' ? broughtIn(report) : writtenOut(report, bytes);
  }
}

const far = (progress: Archive['progress']): string =>
  progress ? `${formatCount(progress.done)} of ${formatCount(progress.all)} …` : 'Begins …';

const writtenOut = ({ shots, guides }: Report, bytes: number | null): string =>
  [
    counted({ shots: shots ?? 0, guides: guides ?? 0 }) || 'No shot',
    bytes === null ? '' : formatBytes(bytes),
  ]
    .filter(Boolean)
    .join(' · ');

function broughtIn({ brought = {} }: Report): string {
  const of = (what: 'added' | 'here' | 'beside') =>
    counted(Object.fromEntries(Object.entries(brought).map(([kind, one]) => [kind, one[what]])));
  const parts = [
    ['New', of('added')],
    ['Kept beside another one', of('beside')],
    ['Here already', of('here')],
  ].flatMap(([what, counts]) => (counts ? [`${what}: ${counts}.`] : []));
  return parts.join(' ') || 'Nothing was in it.';
}
