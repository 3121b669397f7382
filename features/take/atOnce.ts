import type { Way } from '@/core/contracts/way';
import { visiblePart, windowPlace } from '@/core/region/windowChoice';
import { OFF_DISPLAY } from '@/core/take/takenDocument';
import { windowInUse } from '@/core/take/windowInUse';
import { useSettings } from '../settings/settingsStore';
import type { Choice } from './choice';
import type { Stilled, StillWindow } from './sources/contract';
import type { Choosing } from './takeState';

/** What a way takes without anything being chosen; null when a person has to choose. */
export function atOnce({ way, stilled, kind }: Choosing): Choice | null {
  const { width, height } = stilled.picture;
  if (kind === 'full') return { crop: { x: 0, y: 0, width, height } };
  if (kind === 'window' && way.inUse) {
    const window = inUse(stilled);
    if (!window) throw new Error('No window is in use there. Choose one with Window instead.');
    return chooseWindow(stilled, way, window);
  }
  if (kind === 'repeat') return repeated(way, stilled);
  return null;
}

function inUse({ windows, focused, pointer }: Stilled): StillWindow | undefined {
  const { inUseIs } = useSettings.getState().settings;
  return windowInUse({ windows: windows ?? [], focused, pointer: pointer?.at ?? null }, inUseIs);
}

/** A window as a choice; what hangs over the edge is said. */
export function chooseWindow(
  { picture }: Stilled,
  look: { border: boolean; margin: number },
  window: StillWindow,
): Choice {
  const place = windowPlace(window, look);
  const crop = visiblePart(place, picture);
  if (!crop) throw new Error(`“${window.title}” is not on this picture: no display shows it.`);
  const inside = windowPlace(window, { ...look, margin: 0 });
  const seen = visiblePart(inside, picture);
  const whole = seen && seen.width === inside.width && seen.height === inside.height;
  return {
    ...{ crop, place, window },
    ...(!whole && { remark: OFF_DISPLAY }),
  };
}

/** The same place as last time. @throws with words when there is none */
function repeated(way: Way, { picture, origin }: Stilled): Choice {
  const last = useSettings.getState().settings.regions[way.source];
  if (!last) throw new Error('No region has been taken from here yet. Take one with Region first.');
  const place = { ...last.region, x: last.region.x - origin.x, y: last.region.y - origin.y };
  const crop = visiblePart(place, picture);
  if (!crop) throw new Error('That region is no longer on the screen. Take a new one with Region.');
  return { crop };
}
