import type { Canvas } from '@napi-rs/canvas';
import type { ShotDocument } from '@/core/document/document';
import { svgFilter } from '@/core/keep/svgFilter';
import { SvgSurface, type Drawable } from '@/core/keep/svgSurface';
import { xmlText } from '@/core/keep/xmp';
import { withFinish } from '@/core/finish/finish';
import type { Shaper } from '@/core/drawing/shaper';
import { sheetOf, untouched } from '@/core/document/view';
import type { PaintTools } from '@/core/marks/contract';
import { kindOf } from '@/core/marks/registry';
import { paintMark } from '@/core/paint/paintMark';
import { PaintScene } from '@/core/paint/scene';
import { paintSurrounded } from '@/core/paint/surrounded';
import { layoutOfShot, surroundedOf, wholeSize } from '@/core/paint/whole';
import { ovalPoints } from '@/core/geometry/oval';
import { dropRest } from '@/core/document/dropRest';
import { bitmap, flatten, sheet, type Unpainted } from '../paint/flatten';
import { serverShaper } from '../paint/shaper';
import type { Format } from './contract';
import { captionLines, linesOf, type SaidLine } from './markWords';
import { plainPng } from './png';

/**
 * The picture after hiding and cropping, and on it the marks as shapes. Marks that reach under a
 * Hide mark are part of the picture: nothing of them may be found in the file.
 */
export const svg: Format = {
  name: 'svg',
  label: 'SVG',
  note: 'The picture with its marks as shapes, for drawing programs and pages.',
  mediaType: 'image/svg+xml',
  extension: 'svg',
  transparent: true,
  quality: false,
  facts: true,
  thread: () => 'shot',
  fields: [],
  async encode({ pixels: { width, height }, shot: given }, wish) {
    const shaper = await serverShaper();
    const shot = given.document.finish?.surround?.tilt ? await tiltedShot(given, shaper) : given;
    const { frame, document } = dropRest(shot.document, { shaper });
    const adjust = document.finish?.adjust;
    // On all, it is a filter over picture and shapes; on the picture, it is in the picture.
    const over = adjust?.on === 'all' ? adjust : undefined;
    const finish = over ? undefined : { adjust: frame.finish?.adjust ?? adjust };
    const picture = await flatten({ ...shot, document: { ...frame, finish } }, shaper);
    const embedded = await plainPng(picture);
    const { title, description, origin, takenAt, software } = wish.facts;
    const { view } = document;
    const about = [
      title && `<title>${xmlText(title)}</title>`,
      words([description, origin, takenAt]),
    ];
    const whole = wholeSize(shot.document, shaper);
    const around = surroundings(shot.document, { shaper, bitmap, sheet });
    const before =
      '<?xml version="1.0" encoding="UTF-8"?>\n' +
      `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"` +
      ` viewBox="0 0 ${whole.width} ${whole.height}" role="img">` +
      `${about.filter(Boolean).join('')}${software && `<!-- ${xmlText(software)} -->`}` +
      `<defs><clipPath id="view">${outline(shot.document)}</clipPath>` +
      `${over ? svgFilter('adjust', over, view.crop) : ''}${around ? '' : '</defs>'}` +
      `<g id="picture" clip-path="url(#view)">${over ? '<g filter="url(#adjust)">' : ''}<image width="${view.crop.width}" height="${view.crop.height}"` +
      ' href="data:image/png;base64,';
    const shapes = shapesOf(document, picture, shaper);
    const after = `"/>${shapes}</g>${over ? '</g>' : ''}${around ? `</defs>${around}` : ''}</svg>\n`;
    // Not as one text: the picture alone may have hundreds of megabytes.
    const inside = Buffer.from(embedded.toString('base64'), 'latin1');
    return Buffer.concat([Buffer.from(before), inside, Buffer.from(after)]);
  },
};

const words = (lines: readonly string[]): string => {
  const text = lines.filter(Boolean).join('\n');
  return text && `<desc>${xmlText(text)}</desc>`;
};

/** What is around the picture as shapes, and the picture among them; empty where nothing is. */
function surroundings(document: ShotDocument, tools: PaintTools): string {
  const layout = layoutOfShot(document, tools.shaper);
  const surround = document.finish?.surround;
  if (!layout || !surround) return '';
  const surface = new SvgSurface('s', dataUri);
  const of = surroundedOf(document, layout, surround);
  paintSurrounded(surface, { ...of, draw: () => surface.use('picture') }, tools);
  return surface.take() + said(captionLines(layout));
}

/** No shapes of SVG are seen in perspective: what is tilted becomes pixels, what is around it stays shapes. */
async function tiltedShot(shot: Unpainted, shaper: Shaper): Promise<Unpainted> {
  const { finish } = shot.document;
  const { fold, ragged, border, tilt, ...rest } = finish?.surround ?? {};
  const card = {
    ...shot.document,
    finish: { ...finish, surround: { fold, ragged, border, tilt } },
  };
  const pixels = await flatten({ ...shot, document: card }, shaper);
  const made = withFinish(undefined, { surround: rest });
  const { pictures } = shot.document;
  return {
    frame: await plainPng(pixels),
    opaque: pixels.opaque,
    document: { ...untouched(pixels), pictures, ...(made && { finish: made }) },
  };
}

/** What the view shows, from the corner of its crop. */
function outline({ view }: ShotDocument): string {
  const { shape } = view;
  const crop = sheetOf(view);
  if (!shape) return `<rect width="${crop.width}" height="${crop.height}"/>`;
  const points = shape.kind === 'oval' ? ovalPoints(crop, 180) : shape.points;
  return `<polygon points="${points.map((p) => `${p.x - crop.x},${p.y - crop.y}`).join(' ')}"/>`;
}

const dataUri = (image: Drawable): string =>
  `data:image/png;base64,${(image as Canvas).toBuffer('image/png').toString('base64')}`;

function shapesOf(
  document: ShotDocument,
  picture: { data: Uint8ClampedArray; width: number; height: number },
  shaper: Shaper,
): string {
  const tools = { shaper, bitmap, sheet };
  const { width, height } = picture;
  const base = bitmap({ data: new Uint8ClampedArray(picture.data), width, height });
  const scene = new PaintScene({
    marks: document.marks,
    view: document.view,
    pictures: document.pictures,
    drawFrame: (to) => to.drawImage(base, 0, 0),
    tools,
  });
  return document.marks
    .map((mark, i) => {
      const surface = new SvgSurface(`m${i}-`, dataUri);
      paintMark(surface, mark, tools, scene);
      const drawn = surface.take();
      if (drawn === '') return '';
      const words = said(linesOf(mark, shaper));
      return `<g><title>${xmlText(mark.name ?? kindOf(mark).label)}</title>${drawn}${words}</g>`;
    })
    .join('');
}

/** Words as text that can be searched and selected; their letters are drawn as shapes. */
function said(lines: readonly SaidLine[]): string {
  const [first] = lines;
  if (!first) return '';
  const rows = lines.map(({ text, x, y }) => `<tspan x="${x}" y="${y}">${xmlText(text)}</tspan>`);
  return `<text font-family="sans-serif" font-size="${first.size}" fill="#000000" fill-opacity="0">${rows.join('')}</text>`;
}
