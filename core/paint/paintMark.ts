import type { PaintTools, Scene } from '../marks/contract';
import { kindOf, type Mark } from '../marks/registry';
import { HaloSurface } from './haloSurface';
import type { Surface } from './surface';

/** Paints one mark in frame coordinates; a mark that is switched off leaves nothing. */
export function paintMark(surface: Surface, mark: Mark, tools: PaintTools, scene: Scene): void {
  if (mark.off) return;
  if (mark.halo) {
    surface.save();
    kindOf(mark).paint(new HaloSurface(surface, mark.halo), mark, tools, scene);
    surface.restore();
  }
  surface.save();
  kindOf(mark).paint(surface, mark, tools, scene);
  surface.restore();
}
