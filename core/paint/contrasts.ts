import { inflate, intersection, outerPixels, overlap, union, type Rect } from '../geometry/rect';
import { kindOf, markBounds } from '../marks/registry';
import { contrastArea, contrastWith, hasContrast, withHalo } from './standsOut';
import { HALO } from './haloSurface';
import { paintMark } from './paintMark';
import { PaintScene, type Sources } from './scene';

/**
 * The contrasts (1–21) of some marks with what is painted below each, in one painting from the lowest
 * to the topmost; those below have the halo already that their own contrast asks for. Null for a mark
 * that has none or is not seen.
 */
export function contrastsBelow(
  from: Sources,
  ids: ReadonlySet<string>,
): Map<string, number | null> {
  const { tools, marks, drawFrame } = from;
  const scene = new PaintScene(from);
  const found = new Map<string, number | null>();
  const areas = new Map<string, Rect>();
  for (const mark of marks) {
    if (!ids.has(mark.id)) continue;
    found.set(mark.id, null);
    const area = hasContrast(mark) ? contrastArea(mark, tools, scene.view) : null;
    if (area) areas.set(mark.id, area);
  }
  const all = intersection(outerPixels(union([...areas.values()])), scene.view);
  if (areas.size === 0 || !all) return found;
  const { surface, read } = tools.sheet(all.width, all.height);
  surface.translate(-all.x, -all.y);
  drawFrame(surface);
  scene.drawHidden(surface, { within: all });
  for (const mark of marks) {
    const area = areas.get(mark.id);
    let seen = mark;
    if (area) {
      // Marks below may lie under a hidden area, too.
      scene.drawHidden(surface, { within: area });
      const pixels = read({ ...area, x: area.x - all.x, y: area.y - all.y });
      const ratio = contrastWith(mark, pixels, area, tools);
      found.set(mark.id, ratio);
      seen = withHalo(mark, ratio);
      areas.delete(mark.id);
      if (areas.size === 0) break;
    }
    const reached = kindOf(mark).everywhere ?? overlap(inflate(markBounds(mark, tools), HALO), all);
    if (reached) paintMark(surface, seen, tools, scene);
  }
  return found;
}
