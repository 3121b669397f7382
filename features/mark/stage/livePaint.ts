import { inflate, outerPixels, overlap } from '@/core/geometry/rect';
import { kindOf, markBounds, type Mark } from '@/core/marks/registry';
import { changedRegion } from '@/core/paint/changed';
import { HALO } from '@/core/paint/haloSurface';
import { paintMark } from '@/core/paint/paintMark';
import type { PaintScene } from '@/core/paint/scene';
import { changedAmong, MANY, movedAlike } from '../actions/together';
import {
  context,
  drawFrame,
  enter,
  paintBelow,
  paintSheets,
  sheetOf,
  sheetsAbove,
  type Sheet,
} from './sheets';
import { cutAt, onlyMoved, sameLook, sceneOfSight, type Sight } from './sight';

/** Many marks that move together: what is below them, and they themselves, painted once. */
interface Group {
  from: readonly Mark[];
  sight: Sight;
  base: HTMLCanvasElement;
  sheets: readonly Sheet[];
}

/**
 * Paints the editor's picture. Two sheets of the view's size hold what lies below and above the
 * mark being changed, so a pointer move repaints that one mark and not all of them.
 */
export class LivePaint {
  private below: HTMLCanvasElement | null = null;
  private above: Sheet[] = [];
  /** What the sheets show. */
  private shown: Sight | null = null;
  private group: Group | null = null;

  /** Paints the sight onto `target`, the live marks in place of their stored selves. */
  paint(target: CanvasRenderingContext2D, sight: Sight, live: readonly Mark[]): void {
    if (this.below && this.shown && live.length === 0 && onlyMoved(this.shown, sight)) {
      this.paintMoved(target, this.shown, sight);
      return;
    }
    if (this.paintTogether(target, sight, live)) return;
    this.group = null;
    const scene = sceneOfSight(sight, live);
    this.prepare(sight, scene);
    target.save();
    target.setTransform(1, 0, 0, 1, 0, 0);
    if (this.below) target.drawImage(this.below, 0, 0);
    target.restore();
    target.save();
    enter(target, sight);
    const tools = { ...sight.tools, live: true };
    for (const mark of live) paintMark(target, mark, tools, scene);
    target.restore();
    paintSheets(target, this.above);
  }

  /**
   * Many marks on their way, under the pointer or by keys: painted once and shifted, so that what
   * they hide or enlarge is as it was until they rest. False where that is not what happens.
   */
  private paintTogether(
    target: CanvasRenderingContext2D,
    sight: Sight,
    live: readonly Mark[],
  ): boolean {
    const moving = live.length > 0 ? live : this.nudged(sight);
    if (!moving || moving.length < MANY) return false;
    const known = this.group && sameLook(this.group.sight, sight) ? this.group : null;
    const by = known && movedAlike(known.from, moving, sight.tools);
    const group = by ? known : this.groupOf(sight, moving, live.length > 0);
    if (!group) return false;
    this.group = group;
    const { x, y } = by ?? movedAlike(group.from, moving, sight.tools) ?? { x: 0, y: 0 };
    const scale = sight.camera.scale * sight.dots;
    target.save();
    target.setTransform(1, 0, 0, 1, 0, 0);
    target.drawImage(group.base, 0, 0);
    target.restore();
    paintSheets(target, group.sheets, { e: x * scale, f: y * scale });
    return true;
  }

  /** The marks that keys moved since the sheets were painted; null where it is not only that. */
  private nudged(sight: Sight): readonly Mark[] | null {
    const from = this.group?.sight ?? this.shown;
    if (sight.settled || !from || !sameLook(from, sight)) return null;
    return changedAmong(from.marks, sight.marks);
  }

  /** @param live they are not among the marks of the sight, else they are as they were painted last */
  private groupOf(sight: Sight, moving: readonly Mark[], live: boolean): Group | null {
    const ids = new Set(moving.map((mark) => mark.id));
    const from = live ? moving : (this.shown?.marks ?? []).filter((mark) => ids.has(mark.id));
    if (!movedAlike(from, moving, sight.tools)) return null;
    const rest = sight.marks.filter((mark) => !ids.has(mark.id));
    const base = sheetOf(sight);
    const below = { ...sight, marks: rest };
    paintBelow(context(base), below, rest, sceneOfSight(below, []));
    // Two sheets, whatever lies over what: many would take longer to lay than marks to paint.
    const tints = (mark: Mark) => kindOf(mark).blend === 'multiply';
    const ordered = [...from.filter(tints), ...from.filter((mark) => !tints(mark))];
    const sheets = sheetsAbove(
      sight,
      ordered,
      sceneOfSight({ ...sight, marks: [...rest, ...from] }, []),
    );
    return { from, sight: live ? sight : (this.shown ?? sight), base, sheets };
  }

  /** While the camera moves, the sheets move with it; what comes into sight is painted at rest. */
  private paintMoved(target: CanvasRenderingContext2D, from: Sight, to: Sight): void {
    if (!this.below) return;
    target.save();
    enter(target, to);
    drawFrame(target, to);
    const k = to.camera.scale / from.camera.scale;
    const scale = to.camera.scale * to.dots;
    const place = {
      a: k,
      d: k,
      e: (from.camera.x - to.camera.x) * scale,
      f: (from.camera.y - to.camera.y) * scale,
    };
    target.setTransform(place);
    target.drawImage(this.below, 0, 0);
    target.restore();
    paintSheets(target, this.above, place);
  }

  private prepare(sight: Sight, scene: PaintScene): void {
    const { shown } = this;
    this.shown = sight;
    if (shown && this.below && sameLook(shown, sight)) {
      if (shown.marks === sight.marks) return;
      if (this.repaintChanged(shown.marks, sight, scene)) return;
    }
    const at = cutAt(sight);
    const cut = at < 0 ? sight.marks.length : at;
    this.below = sheetOf(sight, this.below);
    paintBelow(context(this.below), sight, sight.marks.slice(0, cut), scene);
    this.above = sheetsAbove(sight, sight.marks.slice(cut + 1), scene);
  }

  /** Repaints only where a few marks changed; false where that is not possible. */
  private repaintChanged(before: readonly Mark[], sight: Sight, scene: PaintScene): boolean {
    if (cutAt(sight) >= 0 || !this.below) return false;
    const region = changedRegion(before, sight.marks, sight.tools);
    if (!region) return false;
    if (region.width === 0) return true;
    const { camera, dots } = sight;
    const scale = camera.scale * dots;
    const surface = context(this.below);
    surface.save();
    surface.setTransform(1, 0, 0, 1, 0, 0);
    // Whole pixels of the screen, so that no seam is left.
    const device = outerPixels({
      x: (region.x - camera.x) * scale,
      y: (region.y - camera.y) * scale,
      width: region.width * scale,
      height: region.height * scale,
    });
    surface.beginPath();
    surface.rect(device.x, device.y, device.width, device.height);
    surface.clip();
    surface.clearRect(device.x, device.y, device.width, device.height);
    enter(surface, sight);
    drawFrame(surface, sight);
    const within = inflate(region, 1 / scale + 1);
    scene.drawHidden(surface, { within: outerPixels(within) });
    for (const mark of sight.marks) {
      const reached = overlap(inflate(markBounds(mark, sight.tools), HALO), within);
      if (reached || kindOf(mark).everywhere) paintMark(surface, mark, sight.tools, scene);
    }
    surface.restore();
    return true;
  }
}
