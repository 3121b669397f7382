import type { Shaper } from '../../drawing/shaper';
import { apply } from '../../geometry/matrix';
import type { Point } from '../../geometry/point';
import { contains } from '../../geometry/rect';
import type { Size } from '../../geometry/size';
import { blurReach } from '../../raster/blur';
import { inRatio } from './background';
import { captionBlock, type CaptionBlock } from './caption';
import { columnsOf } from './fold';
import type { Piece } from './pieces';
import { deviationOf, type Shadow } from './shadow';
import type { Surround } from './surround';
import { tilted, type Tilted } from './tilt';

/** Where everything around a picture lies; whole pixels. */
export interface Layout {
  /** The parts of the picture on the card. */
  pieces: readonly Piece[];
  /** Around each of them. */
  rim: number;
  /** The picture, folded out, with its border. */
  card: Size;
  tilted: Tilted | null;
  /** Where the card, as it is tilted, begins on the whole. */
  at: Point;
  caption: { block: CaptionBlock; at: Point } | null;
  whole: Size;
}

interface Sides {
  top: number;
  right: number;
  bottom: number;
  left: number;
}

/** How far a shadow reaches beyond what throws it. */
function shadowSides(shadow: Shadow | undefined): Sides {
  if (!shadow) return { top: 0, right: 0, bottom: 0, left: 0 };
  const reach = blurReach(deviationOf(shadow));
  const { x, y } = shadow;
  const side = (v: number) => Math.max(0, v);
  return {
    top: side(reach - y),
    right: side(reach + x),
    bottom: side(reach + y),
    left: side(reach - x),
  };
}

/**
 * Works out how large a picture becomes with what is around it.
 * @param isShaped it is a free shape, which is neither folded nor torn
 */
export function layoutOf(
  surround: Surround,
  picture: Size,
  isShaped: boolean,
  shaper: Shaper,
): Layout {
  const rim = surround.border?.width ?? 0;
  const pieces: Piece[] =
    surround.fold && !isShaped
      ? columnsOf(picture, surround.fold, rim)
      : [{ source: { x: 0, y: 0, ...picture }, at: { x: rim, y: rim } }];
  const far = (size: (piece: Piece) => number) => Math.max(...pieces.map(size)) + rim;
  const card = {
    width: far(({ source, at }) => at.x + source.width),
    height: far(({ source, at }) => at.y + source.height),
  };
  const turned = surround.tilt ? tilted(card, surround.tilt) : null;
  return { pieces, rim, card, tilted: turned, ...around(surround, turned?.size ?? card, shaper) };
}

/** What lies around the card: room, shadow and caption. */
function around(
  { shadow, background, caption }: Surround,
  card: Size,
  shaper: Shaper,
): Pick<Layout, 'at' | 'caption' | 'whole'> {
  const thrown = shadowSides(shadow);
  const room = background?.room ?? 0;
  const block = caption ? captionBlock(caption, card.width, shaper) : null;
  const above = block !== null && caption?.at === 'above';
  const below = block !== null && caption?.at === 'below';
  // A caption keeps clear of the dark half of the shadow.
  const gap = block === null ? 0 : Math.round((above ? thrown.top : thrown.bottom) / 2);
  const content = {
    width: Math.max(card.width, block?.width ?? 0),
    height: card.height + (block ? block.height + gap : 0),
  };
  const beside = (content.width - card.width) / 2;
  const left = Math.max(room, Math.ceil(thrown.left - beside));
  const top = above ? room : Math.max(room, thrown.top);
  const needed = {
    width: left + content.width + Math.max(room, Math.ceil(thrown.right - beside)),
    height: top + content.height + (below ? room : Math.max(room, thrown.bottom)),
  };
  const whole = inRatio(needed, background?.ratio);
  const x = left + Math.floor((whole.width - needed.width) / 2);
  const y = top + Math.floor((whole.height - needed.height) / 2);
  return {
    whole,
    at: { x: x + Math.floor(beside), y: above && block ? y + block.height + gap : y },
    caption: block && {
      block,
      at: {
        x: x + Math.floor((content.width - block.width) / 2),
        y: above ? y : y + card.height + gap,
      },
    },
  };
}

/** Where a place of the picture is seen on the whole. */
export function onWhole({ pieces, tilted: turned, at }: Layout, p: Point): Point {
  const piece = pieces.find(({ source }) => contains(source, p)) ?? pieces[0];
  if (!piece) return p;
  const onCard = {
    x: p.x - piece.source.x + piece.at.x,
    y: p.y - piece.source.y + piece.at.y,
  };
  const seen = turned ? apply(turned.to, onCard) : onCard;
  return { x: seen.x + at.x, y: seen.y + at.y };
}
