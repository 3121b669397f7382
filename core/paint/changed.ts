import { inflate, overlap, union, type Rect } from '../geometry/rect';
import type { MarkTools } from '../marks/contract';
import { kindOf, markBounds, type Mark } from '../marks/registry';
import { HALO } from './haloSurface';

/** With more changes than this, painting everything anew is no dearer. */
const MOST = 24;

/**
 * Where a picture differs after some of its marks changed, in frame pixels: of no size where nothing
 * that is seen changed; null when that is not known and all of it must be painted.
 */
export function changedRegion(
  before: readonly Mark[],
  after: readonly Mark[],
  tools: MarkTools,
): Rect | null {
  const changed = changedMarks(before, after);
  if (!changed || changed.length > MOST) return null;
  if (changed.length === 0) return { x: 0, y: 0, width: 0, height: 0 };
  if (changed.some((mark) => kindOf(mark).everywhere)) return null;
  const own = (mark: Mark) => inflate(markBounds(mark, tools), HALO + 1);
  let region = union(changed.map(own));
  const reach = Math.max(...changed.map((mark) => kindOf(mark).reach ?? 0));
  if (reach > 0) {
    region = inflate(region, reach);
    for (const mark of after) {
      // Hidden areas near by are filled from what is around all of them.
      const far = kindOf(mark).reach;
      if (far && overlap(inflate(own(mark), far), region)) region = union([region, own(mark)]);
    }
  }
  const reads = after.flatMap((mark) => {
    const source = kindOf(mark).reads?.(mark);
    return source ? [{ source, mark }] : [];
  });
  // One may show another, in any order: as often as there are such marks is enough.
  for (let i = 0; i < reads.length; i += 1) {
    for (const { source, mark } of reads) {
      if (overlap(source, region)) region = union([region, own(mark)]);
    }
  }
  return region;
}

/** Whether two states of a mark are painted alike: its name and its lock are not seen. */
function looksSame(a: Mark | undefined, b: Mark | undefined): boolean {
  if (a === b) return true;
  if (!a || !b) return false;
  const unseen = { name: undefined, locked: undefined };
  const [one, other]: Record<string, unknown>[] = [
    { ...a, ...unseen },
    { ...b, ...unseen },
  ];
  const keys = new Set([...Object.keys(one ?? {}), ...Object.keys(other ?? {})]);
  return [...keys].every((key) => one?.[key] === other?.[key]);
}

/** Marks that are gone, new or other than before, in both forms; null when their order changed. */
function changedMarks(before: readonly Mark[], after: readonly Mark[]): Mark[] | null {
  const now = new Map(after.map((mark) => [mark.id, mark]));
  const had = new Map(before.map((mark) => [mark.id, mark]));
  const stayed = before.filter((mark) => now.has(mark.id));
  const kept = after.filter((mark) => had.has(mark.id));
  if (stayed.some((mark, i) => kept[i]?.id !== mark.id)) return null;
  return [
    ...before.filter((mark) => !looksSame(now.get(mark.id), mark)),
    ...after.filter((mark) => !looksSame(had.get(mark.id), mark)),
  ];
}
