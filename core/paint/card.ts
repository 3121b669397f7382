import { roundedPath } from '../drawing/paths';
import type { Surface } from '../drawing/surface';
import type { Layout } from '../finish/surround/layout';
import type { Piece } from '../finish/surround/pieces';
import {
  outlineOf,
  tornOutline,
  tornSides,
  type Ragged,
  type Torn,
} from '../finish/surround/ragged';
import type { Surround } from '../finish/surround/surround';
import type { Point } from '../geometry/point';
import { inflate, type Rect } from '../geometry/rect';
import type { Layers } from './layers';

/** Adds an outline to the path, moved. */
export type Trace = (surface: Surface, by: Point) => void;

/** A picture and its edge. */
export interface CardOf {
  surround: Surround;
  layout: Layout;
  /** Draws the picture, its top left corner at 0, 0. */
  draw: (surface: Surface) => void;
  /** The outline of a free shape in the same place; undefined for a rectangle. */
  trace: Trace | undefined;
}

/** All its edges run along whole pixels. */
export const isPlainCard = ({ surround, trace }: CardOf): boolean =>
  !trace && !surround.ragged && !surround.border?.corners;

/** The edge of a piece of the picture: what is inside it, and its border. */
interface Edge {
  piece: Piece;
  box: Rect;
  inner: (surface: Surface) => void;
  /** Paints its border, which may reach inside. */
  rim: (surface: Surface, width: number) => void;
  torn: Torn | null;
}

const stroked = (trace: (surface: Surface) => void) => (surface: Surface, width: number) => {
  surface.lineJoin = 'round';
  surface.lineWidth = 2 * width;
  surface.beginPath();
  trace(surface);
  surface.stroke();
};

const polygon = (points: readonly Point[]) => (surface: Surface) => {
  points.forEach((p, i) => (i === 0 ? surface.moveTo(p.x, p.y) : surface.lineTo(p.x, p.y)));
  surface.closePath();
};

function edgeOf({ surround, layout, trace }: CardOf, piece: Piece, nth: number): Edge {
  const { ragged, border } = surround;
  const box = { ...piece.at, width: piece.source.width, height: piece.source.height };
  if (trace) {
    const inner = (surface: Surface) => trace(surface, piece.at);
    return { piece, box, inner, rim: stroked(inner), torn: null };
  }
  if (ragged && tornSides(ragged).length > 0) {
    const torn = tornOutline(box, ragged, nth);
    const inner = polygon(outlineOf(torn));
    return { piece, box, inner, rim: stroked(inner), torn };
  }
  const corners = border?.corners ?? 0;
  return {
    piece,
    box,
    inner: (surface) => roundedPath(surface, box, Math.max(0, corners - layout.rim)),
    rim: (surface, width) => {
      surface.beginPath();
      roundedPath(surface, inflate(box, width), corners);
      surface.fill();
    },
    torn: null,
  };
}

/** Draws a card, its top left corner at 0, 0, on a surface on which nothing is where it lies. */
export function drawCard(surface: Surface, of: CardOf, layers: Layers): void {
  const { layout, surround } = of;
  const edges = layout.pieces.map((piece, i) => edgeOf(of, piece, i));
  if (isPlainCard(of)) {
    for (const edge of edges) {
      if (surround.border) paintRing(surface, edge.box, layout.rim, surround.border.colour);
      drawPiece(surface, of, edge.piece);
    }
    return;
  }
  if (surface.shadowed) drawShapes(surface, of, edges);
  else drawCut(surface, of, edges, layers);
}

/** Four bars of whole pixels. */
function paintRing(surface: Surface, box: Rect, width: number, colour: string): void {
  if (width === 0) return;
  const out = inflate(box, width);
  surface.fillStyle = colour;
  surface.fillRect(out.x, out.y, out.width, width);
  surface.fillRect(out.x, box.y + box.height, out.width, width);
  surface.fillRect(out.x, box.y, width, box.height);
  surface.fillRect(box.x + box.width, box.y, width, box.height);
}

function drawPiece(surface: Surface, { draw }: CardOf, { source, at }: Piece): void {
  surface.save();
  surface.beginPath();
  surface.rect(at.x, at.y, source.width, source.height);
  surface.clip();
  surface.translate(at.x - source.x, at.y - source.y);
  draw(surface);
  surface.restore();
}

/**
 * Border and picture meet in pixels of which each has a share; added up, they leave no seam between
 * them, and nothing of the border shines through what is transparent.
 */
function drawCut(surface: Surface, of: CardOf, edges: readonly Edge[], layers: Layers): void {
  const { layout, surround } = of;
  const picture = layers.sheet(layout.card);
  for (const edge of edges) {
    drawPiece(picture.surface, of, edge.piece);
    if (edge.torn && surround.ragged) paintFibres(picture.surface, edge.torn, surround.ragged);
  }
  picture.surface.globalCompositeOperation = 'destination-in';
  // A free shape is cut out already.
  if (!of.trace) fillAll(picture.surface, edges);
  surface.save();
  if (surround.border && layout.rim > 0) {
    surface.fillStyle = surround.border.colour;
    surface.strokeStyle = surround.border.colour;
    for (const edge of edges) edge.rim(surface, layout.rim);
    surface.globalCompositeOperation = 'destination-out';
    fillAll(surface, edges);
    surface.globalCompositeOperation = 'lighter';
  }
  layers.put(surface, picture.image, 0, 0);
  surface.restore();
}

function fillAll(surface: Surface, edges: readonly Edge[]): void {
  surface.fillStyle = '#000000';
  surface.beginPath();
  for (const { inner } of edges) inner(surface);
  surface.fill();
}

/** The same as shapes, where nothing can be taken away again: the picture covers its border. */
function drawShapes(surface: Surface, of: CardOf, edges: readonly Edge[]): void {
  const { layout, surround } = of;
  for (const edge of edges) {
    surface.save();
    if (surround.border && layout.rim > 0) {
      surface.fillStyle = surround.border.colour;
      surface.strokeStyle = surround.border.colour;
      edge.rim(surface, layout.rim);
    }
    surface.beginPath();
    edge.inner(surface);
    surface.clip();
    surface.save();
    const { source, at } = edge.piece;
    surface.translate(at.x - source.x, at.y - source.y);
    of.draw(surface);
    surface.restore();
    if (edge.torn && surround.ragged) paintFibres(surface, edge.torn, surround.ragged);
    surface.restore();
  }
}

/** Torn paper is lighter where it is torn: what lies within the outline of a line along it. */
function paintFibres(surface: Surface, torn: Torn, ragged: Ragged): void {
  surface.save();
  // What is cut to the outline by its clip needs no other bound.
  if (!surface.shadowed) surface.globalCompositeOperation = 'source-atop';
  surface.strokeStyle = '#FFFFFF';
  surface.lineJoin = 'round';
  for (const [width, alpha] of [
    [0.5, 0.5],
    [0.22, 0.8],
  ] as const) {
    surface.globalAlpha = alpha;
    surface.lineWidth = Math.max(1, ragged.depth * width);
    for (const side of tornSides(ragged)) {
      surface.beginPath();
      torn[side].forEach((p, i) => (i === 0 ? surface.moveTo(p.x, p.y) : surface.lineTo(p.x, p.y)));
      surface.stroke();
    }
  }
  surface.restore();
}
