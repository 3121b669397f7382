import { fillText } from '../drawing/textLayout';
import type { Surface } from '../drawing/surface';
import { gradient, type Background } from '../finish/surround/background';
import type { Layout } from '../finish/surround/layout';
import { deviationOf } from '../finish/surround/shadow';
import type { Surround } from '../finish/surround/surround';
import { multiply, scaling } from '../geometry/matrix';
import type { PaintTools } from '../marks/contract';
import { isOpaque, type RgbaPixels } from '../raster/pixels';
import { warp } from '../raster/warp';
import { drawCard, isPlainCard, type CardOf } from './card';
import { Layers } from './layers';
import { shadowOf } from './thrown';
import { paintWatermark } from './watermarked';

/** A picture and what is painted around it. */
export interface SurroundedOf extends CardOf {
  surround: Surround;
  layout: Layout;
  /** The pixels of a picture that the document holds. */
  held: (key: string) => RgbaPixels | null;
}

/**
 * Paints a picture with what is around it.
 * @param surface empty, as large as the whole, in frame pixels
 * @param scale device pixels for one of the frame, where it is looked at and not kept
 */
export function paintSurrounded(
  surface: Surface,
  of: SurroundedOf,
  tools: PaintTools,
  scale = 1,
): void {
  const { surround, layout } = of;
  const { whole, caption } = layout;
  const layers = new Layers(tools, scale);
  if (surround.background) paintBackground(surface, surround.background, whole, tools, layers);
  paintCard(surface, of, tools, layers);
  if (surround.caption && caption) {
    const { plate, colour } = surround.caption;
    const { block } = caption;
    if (plate) {
      surface.fillStyle = plate;
      surface.fillRect(caption.at.x, caption.at.y, block.width, block.height);
    }
    const inside = { x: caption.at.x + block.padding, y: caption.at.y + block.padding };
    fillText(surface, block.words, inside.x, inside.y, colour);
  }
  if (surround.watermark)
    paintWatermark(surface, surround.watermark, whole, of.held, tools, layers);
}

function paintBackground(
  surface: Surface,
  { colours, run }: Background,
  whole: Layout['whole'],
  tools: PaintTools,
  layers: Layers,
): void {
  const [from, to] = colours;
  if (from === undefined) return;
  if (to === undefined) {
    surface.fillStyle = from;
    surface.fillRect(0, 0, whole.width, whole.height);
    return;
  }
  if (surface.gradientRect) {
    surface.gradientRect(whole.width, whole.height, [from, to], run);
    return;
  }
  const size = {
    width: Math.ceil(whole.width * layers.scale),
    height: Math.ceil(whole.height * layers.scale),
  };
  layers.put(surface, tools.bitmap({ data: gradient(size, [from, to], run), ...size }), 0, 0);
}

/** The card with its shadow, as it is tilted. */
function paintCard(surface: Surface, of: SurroundedOf, tools: PaintTools, layers: Layers): void {
  const { surround, layout } = of;
  const { at, card, tilted } = layout;
  const draw = (to: Surface) => drawCard(to, of, layers);
  const { shadow } = surround;
  if (shadow && surface.shadowed && !tilted) {
    const { x, y, colour, strength } = shadow;
    const thrown = { x, y, colour, deviation: deviationOf(shadow), opacity: strength / 100 };
    surface.shadowed(thrown, layout.whole, () => drawAt(surface, at, draw));
    return;
  }
  if (!shadow && !tilted && (surface.shadowed || isPlainCard(of))) {
    drawAt(surface, at, draw);
    return;
  }
  const { scale } = layers;
  const sheet = layers.sheet(card);
  draw(sheet.surface);
  let pixels = shadow || tilted ? sheet.read() : null;
  let image = sheet.image;
  if (tilted && pixels) {
    // From device pixels to device pixels.
    const from = multiply(
      scaling(scale, scale),
      multiply(tilted.from, scaling(1 / scale, 1 / scale)),
    );
    const size = {
      width: Math.ceil(tilted.size.width * scale),
      height: Math.ceil(tilted.size.height * scale),
    };
    pixels = warp(pixels, normal(from), { x: 0, y: 0, ...size }, isOpaque(pixels));
    image = tools.bitmap(pixels);
  }
  if (shadow && pixels) {
    const thrown = shadowOf(pixels, shadow, scale);
    const back = thrown.reach / scale;
    layers.put(
      surface,
      tools.bitmap(thrown.pixels),
      at.x + shadow.x - back,
      at.y + shadow.y - back,
    );
  }
  layers.put(surface, image, at.x, at.y);
}

function drawAt(surface: Surface, at: Layout['at'], draw: (surface: Surface) => void): void {
  surface.save();
  surface.translate(at.x, at.y);
  draw(surface);
  surface.restore();
}

/** With its last number 1, by which maps are told from those that leave parallels parallel. */
const normal = ([a, b, c, d, e, f, g, h, i]: ReturnType<typeof multiply>) =>
  [a / i, b / i, c / i, d / i, e / i, f / i, g / i, h / i, 1] as const;
