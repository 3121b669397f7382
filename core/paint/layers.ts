import type { Surface } from '../drawing/surface';
import type { Size } from '../geometry/size';
import type { PaintTools, Sheet } from '../marks/contract';

/** Canvases in device pixels, of which some make one pixel of the frame. */
export class Layers {
  constructor(
    private readonly tools: PaintTools,
    readonly scale: number,
  ) {}

  sheet({ width, height }: Size): Sheet {
    const made = this.tools.sheet(
      Math.max(1, Math.ceil(width * this.scale)),
      Math.max(1, Math.ceil(height * this.scale)),
    );
    made.surface.scale(this.scale, this.scale);
    return made;
  }

  /** Draws such pixels where they belong, in frame pixels. */
  put(surface: Surface, image: unknown, x: number, y: number): void {
    surface.save();
    surface.translate(x, y);
    surface.scale(1 / this.scale, 1 / this.scale);
    surface.drawImage(image, 0, 0);
    surface.restore();
  }
}
