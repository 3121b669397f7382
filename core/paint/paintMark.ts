import { inflate, intersection, outerPixels } from '../geometry/rect';
import type { PaintTools, Scene } from '../marks/contract';
import { kindOf, markBounds, opacityOf, type Mark } from '../marks/registry';
import { HALO, HaloSurface } from './haloSurface';
import type { Surface } from '../drawing/surface';

/** Paints one mark in frame coordinates; a mark that is switched off leaves nothing. */
export function paintMark(surface: Surface, mark: Mark, tools: PaintTools, scene: Scene): void {
  if (mark.off) return;
  const opacity = opacityOf(mark);
  if (opacity < 1) paintFaded(surface, mark, opacity, tools, scene);
  else paintWhole(surface, mark, tools, scene);
}

function paintWhole(surface: Surface, mark: Mark, tools: PaintTools, scene: Scene): void {
  if (mark.halo) {
    surface.save();
    kindOf(mark).paint(new HaloSurface(surface, mark.halo), mark, tools, scene);
    surface.restore();
  }
  surface.save();
  kindOf(mark).paint(surface, mark, tools, scene);
  surface.restore();
}

/** Thinned out as a whole: where its parts lie over each other, nothing shines through them. */
function paintFaded(
  surface: Surface,
  mark: Mark,
  opacity: number,
  tools: PaintTools,
  scene: Scene,
): void {
  const blend = kindOf(mark).blend === 'multiply' ? 'multiply' : 'source-over';
  if (surface.faded) {
    surface.faded(opacity, blend, () => paintWhole(surface, mark, tools, scene));
    return;
  }
  const { scale = 1, seen = scene.view } = tools.sight ?? {};
  const reach = outerPixels(inflate(markBounds(mark, tools), HALO + 1));
  const box = intersection(reach, outerPixels(intersection(seen, scene.view) ?? scene.view));
  if (!box) return;
  const [width, height] = [Math.ceil(box.width * scale), Math.ceil(box.height * scale)];
  if (width < 1 || height < 1) return;
  const sheet = tools.sheet(width, height);
  sheet.surface.scale(scale, scale);
  sheet.surface.translate(-box.x, -box.y);
  paintWhole(sheet.surface, mark, tools, scene);
  surface.save();
  surface.globalAlpha = opacity;
  surface.globalCompositeOperation = blend;
  surface.translate(box.x, box.y);
  surface.scale(1 / scale, 1 / scale);
  surface.drawImage(sheet.image, 0, 0);
  surface.restore();
}
