import { toHex } from '@/core/colour/colour';
import type { Point } from '@/core/geometry/point';
import { kindOf, type Mark, type MarkName } from '@/core/marks/registry';
import { messageOf } from '../../api/ask';
import { notify } from '../../notices/noticeStore';
import { marks, select } from '../session/select';
import { changeDocument } from '../session/changes';
import { colourGoesTo } from '../session/lastTool';
import { sceneOf } from '../session/scene';
import { update } from '../session/session';
import { rememberColour, rememberStyle } from '../session/styles';

/** Removes marks in one step. */
export function erase(gone: ReadonlySet<string>): void {
  update({ live: [] });
  if (gone.size === 0) return;
  changeDocument('Erase', (draft) => {
    draft.marks = draft.marks.filter((mark) => !gone.has(mark.id));
  });
  select([]);
}

/** Everything, or all marks of one kind, but what is locked. */
export function eraseAll(kind?: MarkName): void {
  const all = marks().filter((mark) => !mark.locked && (!kind || mark.kind === kind));
  erase(new Set(all.map((mark) => mark.id)));
}

/** The kinds there are marks of, with how many. */
export function kindsPresent(
  all: readonly Mark[],
): { kind: MarkName; label: string; count: number }[] {
  const counts = new Map<MarkName, number>();
  for (const mark of all) counts.set(mark.kind, (counts.get(mark.kind) ?? 0) + 1);
  return [...counts].map(([kind, count]) => ({ kind, label: kindOf(kind).label, count }));
}

/** The colour that is seen at a place, marks and fillings included; null outside the view. */
export function colourAt(at: Point): string | null {
  const { scene } = sceneOf();
  const pixel = { x: Math.floor(at.x), y: Math.floor(at.y), width: 1, height: 1 };
  // Below no mark means with all of them.
  const [r = 0, g = 0, b = 0, a = 0] = scene.below('', pixel).data;
  return a === 0 ? null : toHex({ r, g, b });
}

/** Copies the colour under a place and gives it to the tool before. */
export async function pickColour(at: Point): Promise<void> {
  const colour = colourAt(at);
  if (!colour) return;
  const before = colourGoesTo();
  if (before) rememberStyle(before, { colour });
  rememberColour(colour);
  update({ picked: colour });
  try {
    await navigator.clipboard.writeText(colour);
    notify({ key: 'colour', tone: 'good', title: `${colour} copied`, lines: [] });
  } catch (error) {
    notify({
      key: 'colour',
      tone: 'bad',
      title: `${colour} could not be copied`,
      lines: [messageOf(error)],
    });
  }
}
