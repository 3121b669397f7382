import { createCanvas } from '@napi-rs/canvas';
import { paintDesk } from '@/core/desk/build';
import type { Desk } from '@/core/desk/model';
import { mostScroll } from '@/core/desk/windows';
import type { Shaper } from '@/core/drawing/shaper';
import { LongPage } from '@/core/stitch/longPage';
import { loopTurn } from '../base/pieces';
import type { Pixels } from '../paint/flatten';

/** So much of the register is scrolled at a time, pixels. */
const STEP = 150;

/** The plant register in its whole length, scrolled and joined as a person would have it taken. */
export async function longRegister(
  desk: Desk,
  shaper: Shaper,
): Promise<Pixels & { frames: number }> {
  const register = desk.windows.find((w) => w.name === 'register');
  if (!register) throw new Error('The desk has no register.');
  const { width, height } = register.bounds;
  const front = [...desk.windows.filter((w) => w !== register), register];
  const page = new LongPage({ width, height }, { waits: false });
  for (let scroll = 0; ; scroll = Math.min(scroll + STEP, mostScroll)) {
    const surface = createCanvas(width, height).getContext('2d');
    paintDesk(surface, { ...desk, windows: front, scroll }, shaper, register.bounds);
    const { data } = surface.getImageData(0, 0, width, height);
    page.add({ data, width, height });
    await loopTurn();
    if (scroll === mostScroll) break;
  }
  const [joined] = page.joined();
  if (!joined) throw new Error('The register could not be joined.');
  return { ...joined, opaque: true, frames: page.progress.pieces[0]?.frames ?? 1 };
}
