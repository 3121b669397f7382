import { z } from 'zod';
import { arrow, arrowSchema } from './arrow';
import { box, boxSchema } from './box';
import type { Rect } from '../geometry/rect';
import type { MarkBase, MarkKind, MarkTools } from './contract';
import { highlighter, highlighterSchema } from './highlighter';
import { blocks, blocksSchema } from './blocks';
import { blur, blurSchema } from './blur';
import { callout, calloutSchema } from './callout';
import { closeUp, closeUpSchema } from './closeUp';
import { cover, coverSchema } from './cover';
import { dim, dimSchema } from './dim';
import { number, numberSchema } from './number';
import { polygon, polygonSchema } from './polygon';
import { stamp, stampSchema } from './stamp';
import { line, lineSchema } from './line';
import { paintOut, paintOutSchema } from './paintOut';
import { oval, ovalSchema } from './oval';
import { pen } from './pen';
import { penSchema } from './pen/schema';
import { piece } from './piece';
import { pieceSchema } from './piece/schema';
import { firstStyle, type Style } from './style';
import { text, textSchema } from './text';

/** Every kind of mark there is: a new kind is one folder and one line in each of these lists. */
export const markSchema = z.discriminatedUnion('kind', [
  arrowSchema,
  lineSchema,
  boxSchema,
  ovalSchema,
  penSchema,
  highlighterSchema,
  textSchema,
  pieceSchema,
  blurSchema,
  blocksSchema,
  coverSchema,
  paintOutSchema,
  polygonSchema,
  numberSchema,
  dimSchema,
  closeUpSchema,
  calloutSchema,
  stampSchema,
]);
export type Mark = z.infer<typeof markSchema>;
/** A mark as it may be written down: settings with a usual value may be left out. */
export type MarkInput = z.input<typeof markSchema>;
export type MarkName = Mark['kind'];

const kinds = {
  arrow,
  line,
  box,
  oval,
  pen,
  highlighter,
  text,
  piece,
  blur,
  blocks,
  cover,
  paintOut,
  polygon,
  number,
  dim,
  closeUp,
  callout,
  stamp,
};

export const markNames = Object.keys(kinds) as MarkName[];

/** The kind behind a name or a mark, seen as a kind of any mark. */
export function kindOf(of: MarkName | Mark): MarkKind<Mark> {
  const name = typeof of === 'string' ? of : of.kind;
  // Each kind is only ever given marks of its own name, which the type system cannot follow.
  return kinds[name] as unknown as MarkKind<MarkBase> as MarkKind<Mark>;
}

const bounds = new WeakMap<Mark, { tools: unknown; rect: Rect }>();

/** The bounds of a mark, worked out once: a mark that changes is another one. */
export function markBounds(mark: Mark, tools: MarkTools): Rect {
  const known = bounds.get(mark);
  if (known?.tools === tools.shaper) return known.rect;
  const rect = kindOf(mark).bounds(mark, tools);
  bounds.set(mark, { tools: tools.shaper, rect });
  return rect;
}

/** What each tool starts with before anybody has changed it. */
export const firstStyles: Record<MarkName, Style> = {
  arrow: firstStyle,
  line: { ...firstStyle, heads: 'none' },
  box: firstStyle,
  oval: firstStyle,
  pen: firstStyle,
  highlighter: { ...firstStyle, colour: '#F0E442', thickness: 24 },
  text: { ...firstStyle, colour: '#1C2B2A' },
  piece: firstStyle,
  blur: firstStyle,
  blocks: { ...firstStyle, strength: 14 },
  cover: { ...firstStyle, colour: '#000000' },
  paintOut: { ...firstStyle, colour: '#FFFFFF' },
  polygon: firstStyle,
  number: firstStyle,
  dim: firstStyle,
  closeUp: { ...firstStyle, hole: 'oval' },
  callout: { ...firstStyle, outline: 3, corner: 10 },
  stamp: { ...firstStyle, size: 48 },
};

/** How much of what is below a mark covers, 0–1; what hides covers all of it. */
export const opacityOf = (mark: Mark): number => ('opacity' in mark && mark.opacity) || 1;

/** How a mark holds words; none where it bears none. */
export function wordsOf(mark: Mark): ReturnType<typeof kindOf>['words'] {
  const { words } = kindOf(mark);
  return words?.holds && !words.holds(mark) ? undefined : words;
}
