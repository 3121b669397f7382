import { uprightRect } from '../../geometry/mapping';
import type { Point } from '../../geometry/point';
import { contains, inflate, union, type Rect } from '../../geometry/rect';
import { gripPoint, grips, isGrip, pullGrip } from '../../geometry/resize';
import { ovalPath } from '../../drawing/paths';
import type { Surface } from '../../drawing/surface';
import { applyStyle, pick } from '../base';
import type { MarkKind, PaintTools, Sheet } from '../contract';
import { rectFromPath, rectNumbers } from '../shared/rectMark';
import { dimSchema, type DimMark, type HoleRect } from './schema';

const settings = ['hole', 'dimming', 'softness'] as const;
/** Steps of a soft edge. */
const BANDS = 12;

const extentOf = (mark: DimMark): Rect => union(mark.bright);

const shifted = (mark: DimMark, change: (hole: HoleRect, i: number) => HoleRect): DimMark => ({
  ...mark,
  bright: mark.bright.map(change),
});

/** A further place that stays bright. */
export const withBright = (mark: DimMark, more: DimMark): DimMark => ({
  ...mark,
  bright: [...mark.bright, ...more.bright].slice(0, 50),
});

/** All is darkened but one or more boxes and ovals. */
export const dim: MarkKind<DimMark> = {
  kind: 'dim',
  label: 'Dim around',
  group: 'Enclose',
  rank: 40,
  icon: 'M10.1 2.182a10 10 0 0 1 3.8 0M13.9 21.818a10 10 0 0 1-3.8 0M17.609 3.721a10 10 0 0 1 2.69 2.7M2.182 13.9a10 10 0 0 1 0-3.8M20.279 17.609a10 10 0 0 1-2.7 2.69M21.818 10.1a10 10 0 0 1 0 3.8M3.721 6.391a10 10 0 0 1 2.7-2.69M6.391 20.279a10 10 0 0 1-2.69-2.7',
  key: 'd',
  joined: (there, another) => ({
    mark: withBright(there, another),
    label: 'Leave another place bright',
  }),
  schema: dimSchema,
  blend: 'normal',
  made: () => 'drag',
  everywhere: true,
  settings,
  create: (id, path, style) => ({
    id,
    kind: 'dim',
    bright: [{ ...rectFromPath(path), hole: style.hole }],
    dimming: style.dimming,
    softness: style.softness,
  }),
  tooSmall: (mark) => extentOf(mark).width < 3 && extentOf(mark).height < 3,
  bounds: (mark) => inflate(extentOf(mark), mark.softness + 1),
  // It is taken hold of by its edges; what lies in the bright part can be reached.
  hit: (mark, at, tolerance) =>
    mark.bright.some(
      (r) => contains(inflate(r, tolerance + 2), at) && !contains(inflate(r, -tolerance - 2), at),
    ),
  handles: (mark) =>
    mark.bright.flatMap((r, i) =>
      grips.map((grip) => ({
        id: `${i} ${grip}`,
        at: gripPoint(r, grip),
        role: 'resize' as const,
      })),
    ),
  pull(mark, handle, to, keep) {
    const [index = '', grip = ''] = handle.split(' ');
    if (!isGrip(grip)) return mark;
    return shifted(mark, (r, i) =>
      String(i) === index ? { ...r, ...pullGrip(r, grip, to, keep) } : r,
    );
  },
  move: (mark, by: Point) => shifted(mark, (r) => ({ ...r, x: r.x + by.x, y: r.y + by.y })),
  through: (mark, map) =>
    shifted(mark, (r) => {
      const { x, y, width, height } = uprightRect(r, map);
      return { ...r, x, y, width, height };
    }),
  numbers: (mark) => (mark.bright[0] ? rectNumbers(mark.bright[0]) : []),
  withNumber: (mark, field, value) =>
    shifted(mark, (r, i) => {
      if (i > 0 || !(field in r)) return r;
      const size = field === 'width' || field === 'height';
      return { ...r, [field]: size ? Math.max(1, value) : value };
    }),
  restyle(mark, { hole, ...style }) {
    const shaped = hole ? shifted(mark, (r) => ({ ...r, hole })) : mark;
    return applyStyle(shaped, style);
  },
  styleOf: (mark) => ({
    ...pick(mark, ['dimming', 'softness']),
    ...(mark.bright[0] && { hole: mark.bright[0].hole }),
  }),
  paint(surface, mark, tools, { view }) {
    surface.drawImage(veilOf(mark, view, tools).image, view.x, view.y);
  },
  describe: (mark) => (mark.bright.length === 1 ? 'one place' : `${mark.bright.length} places`),
};

const veils = new WeakMap<DimMark, { view: Rect; veil: Sheet }>();

/** Black of the mark's strength over the view, with the bright places taken out of it. */
function veilOf(mark: DimMark, view: Rect, tools: PaintTools): Sheet {
  const known = veils.get(mark);
  if (known?.view === view) return known.veil;
  const veil = tools.sheet(view.width, view.height);
  const { surface } = veil;
  surface.globalAlpha = mark.dimming;
  surface.fillStyle = '#000000';
  surface.fillRect(0, 0, view.width, view.height);
  surface.translate(-view.x, -view.y);
  surface.globalCompositeOperation = 'destination-out';
  for (const r of mark.bright) takeOut(surface, r, mark.softness);
  veils.set(mark, { view, veil });
  return veil;
}

/** A soft edge is taken out in steps, each its share of what is left, so that nothing is left inside. */
function takeOut(surface: Surface, r: HoleRect, softness: number): void {
  const bands = softness > 0 ? BANDS : 1;
  for (let band = 0; band < bands; band += 1) {
    const grown = inflate(r, bands === 1 ? 0 : softness * (0.5 - band / (bands - 1)));
    if (grown.width <= 0 || grown.height <= 0) continue;
    surface.globalAlpha = 1 / (bands - band);
    surface.beginPath();
    if (r.hole === 'oval') ovalPath(surface, grown);
    else surface.rect(grown.x, grown.y, grown.width, grown.height);
    surface.fill();
  }
}
