import { createCanvas, type SKRSContext2D } from '@napi-rs/canvas';
import type { PaintTools } from '@/core/marks/contract';
import type { Mark } from '@/core/marks/registry';
import { PaintScene } from '@/core/paint/scene';
import type { Surface } from '@/core/drawing/surface';
import { bitmap, sheet } from '@/server/paint/flatten';
import { testShaper } from './shaper';

/** Everything core needs to paint, as the server has it. */
export const testTools = async (): Promise<PaintTools> => ({
  shaper: await testShaper(),
  bitmap,
  sheet,
});

/** A canvas with the picture of a fine chequer, and the scene of some marks on it. */
export function onChequer(
  marks: readonly Mark[],
  size: { width: number; height: number },
  tools: PaintTools,
): { surface: SKRSContext2D; scene: PaintScene } {
  const surface = createCanvas(size.width, size.height).getContext('2d');
  const chequer = (to: Surface) => {
    to.fillStyle = '#FFFFFF';
    to.fillRect(0, 0, size.width, size.height);
    to.fillStyle = '#E3DED0';
    for (let y = 0; y < size.height; y += 6) {
      for (let x = (y / 6) % 2 ? 6 : 0; x < size.width; x += 12) to.fillRect(x, y, 6, 6);
    }
  };
  chequer(surface);
  const view = { crop: { x: 0, y: 0, ...size } };
  return {
    surface,
    scene: new PaintScene({ pictures: undefined, marks, view, drawFrame: chequer, tools }),
  };
}
