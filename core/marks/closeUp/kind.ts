import { uprightRect } from '../../geometry/mapping';
import { add, distance, type Point } from '../../geometry/point';
import { centre, contains, inflate, outerPixels, union, type Rect } from '../../geometry/rect';
import { gripPoint, grips, isGrip, pullGrip } from '../../geometry/resize';
import { ovalPath } from '../../drawing/paths';
import type { Surface } from '../../drawing/surface';
import { enlarge } from '../../raster/enlarge';
import { applyStyle, pick } from '../base';
import { LEAST, type MarkKind } from '../contract';
import { rectFromPath, rectNumbers } from '../shared/rectMark';
import { closeUpSchema, type CloseUpMark } from './schema';

const settings = ['colour', 'outline', 'zoom', 'hole', 'sharp'] as const;
/** Larger sources are enlarged from their middle part only. */
const MOST_SIDE = 4_000;

const sourceOf = (mark: CloseUpMark): Rect => outerPixels(mark.source);

function shownAt(mark: CloseUpMark): Rect {
  const { width, height } = sourceOf(mark);
  const [w, h] = [Math.round(width * mark.zoom), Math.round(height * mark.zoom)];
  return {
    x: Math.round(mark.at.x - w / 2),
    y: Math.round(mark.at.y - h / 2),
    width: w,
    height: h,
  };
}

/** On the spot the enlargement lies over what it shows, and no leader line is needed. */
const onTheSpot = (mark: CloseUpMark): boolean =>
  distance(centre(mark.source), mark.at) < Math.min(mark.source.width, mark.source.height) / 2;

/** A place of the picture once more, larger. */
export const closeUp: MarkKind<CloseUpMark> = {
  kind: 'closeUp',
  label: 'Close-up',
  group: 'Enclose',
  rank: 50,
  icon: 'M3 11a8 8 0 1 0 16 0a8 8 0 1 0 -16 0M21 21L16.65 16.65M11 8L11 14M8 11L14 11',
  key: 'u',
  first: { hole: 'oval' },
  contrast: { least: LEAST.mark },
  reads: (mark) => mark.source,
  schema: closeUpSchema,
  blend: 'normal',
  made: () => 'drag',
  settings,
  create(id, path, style) {
    const source = rectFromPath(path);
    return {
      id,
      kind: 'closeUp',
      source,
      at: centre(source),
      zoom: style.zoom,
      hole: style.hole,
      sharp: style.sharp,
      colour: style.colour,
      outline: style.outline,
    };
  },
  tooSmall: ({ source }) => source.width < 4 || source.height < 4,
  bounds: (mark) => inflate(union([mark.source, shownAt(mark)]), mark.outline + 1),
  hit: (mark, at, tolerance) => contains(inflate(shownAt(mark), tolerance), at),
  handles(mark) {
    const shown = shownAt(mark);
    return [
      ...grips.map((grip) => ({
        id: grip,
        at: gripPoint(mark.source, grip),
        role: 'resize' as const,
      })),
      { id: 'view', at: { x: mark.at.x, y: shown.y + shown.height }, role: 'end' },
      { id: 'source', at: centre(mark.source), role: 'bend' },
    ];
  },
  pull(mark, handle, to, keep) {
    if (isGrip(handle)) return { ...mark, source: pullGrip(mark.source, handle, to, keep) };
    if (handle === 'view') {
      return { ...mark, at: { x: to.x, y: to.y - shownAt(mark).height / 2 } };
    }
    if (handle !== 'source') return mark;
    const { width, height } = mark.source;
    return { ...mark, source: { x: to.x - width / 2, y: to.y - height / 2, width, height } };
  },
  move: (mark, by) => ({
    ...mark,
    at: add(mark.at, by),
    source: { ...mark.source, x: mark.source.x + by.x, y: mark.source.y + by.y },
  }),
  through: (mark, map) => ({
    ...mark,
    at: map.point(mark.at),
    source: uprightRect(mark.source, map),
  }),
  numbers: (mark) => [
    ...rectNumbers(mark.source),
    { id: 'at.x', label: 'Shown at x', value: mark.at.x },
    { id: 'at.y', label: 'Shown at y', value: mark.at.y },
  ],
  withNumber(mark, field, value) {
    if (field === 'at.x') return { ...mark, at: { ...mark.at, x: value } };
    if (field === 'at.y') return { ...mark, at: { ...mark.at, y: value } };
    if (!(field in mark.source)) return mark;
    const size = field === 'width' || field === 'height';
    return { ...mark, source: { ...mark.source, [field]: size ? Math.max(4, value) : value } };
  },
  restyle: applyStyle,
  styleOf: (mark) => pick(mark, settings),
  paint(surface, mark, tools, scene) {
    const source = sourceOf(mark);
    if (source.width > MOST_SIDE || source.height > MOST_SIDE) return;
    if (source.width < 1 || source.height < 1) return;
    const shown = shownAt(mark);
    const pixels = enlarge(scene.below(mark.id, source), shown.width, shown.height, mark.sharp);
    if (!onTheSpot(mark)) paintLeader(surface, mark, shown);
    surface.save();
    surface.beginPath();
    trace(surface, mark, shown);
    surface.clip();
    surface.drawImage(tools.bitmap(pixels), shown.x, shown.y);
    surface.restore();
    ring(surface, mark, shown);
  },
  describe: (mark) => `${mark.zoom} ×, ${Math.round(mark.source.width)} px wide`,
};

function trace(surface: Surface, mark: CloseUpMark, r: Rect): void {
  if (mark.hole === 'oval') ovalPath(surface, r);
  else surface.rect(r.x, r.y, r.width, r.height);
}

function ring(surface: Surface, mark: CloseUpMark, r: Rect): void {
  if (mark.outline === 0) return;
  surface.strokeStyle = mark.colour;
  surface.lineWidth = mark.outline;
  surface.lineJoin = 'round';
  surface.beginPath();
  trace(surface, mark, r);
  surface.stroke();
}

/** A ring around the source, and a line from it to the enlargement, which then covers its end. */
function paintLeader(surface: Surface, mark: CloseUpMark, shown: Rect): void {
  ring(surface, mark, mark.source);
  if (mark.outline === 0) return;
  const from = edgeTowards(mark.source, centre(shown));
  surface.strokeStyle = mark.colour;
  surface.lineWidth = Math.max(1, mark.outline * 0.75);
  surface.lineCap = 'butt';
  surface.beginPath();
  surface.moveTo(from.x, from.y);
  surface.lineTo(mark.at.x, mark.at.y);
  surface.stroke();
}

/** Where the line from the middle of `r` to a place leaves its ellipse. */
function edgeTowards(r: Rect, to: Point): Point {
  const c = centre(r);
  const [dx, dy] = [to.x - c.x, to.y - c.y];
  const t = 1 / Math.max(1e-6, Math.hypot(dx / (r.width / 2), dy / (r.height / 2)));
  return { x: c.x + dx * t, y: c.y + dy * t };
}
