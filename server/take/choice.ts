import { isShown } from '@/core/contracts/display';
import type { Way } from '@/core/contracts/way';
import { contains, type Rect } from '@/core/geometry/rect';
import { visiblePart, windowPlace } from '@/core/region/windowChoice';
import { windowInUse } from '@/core/take/windowInUse';
import { allowedScreen } from '../display/access';
import {
  chooseOnScreen,
  NothingChosen,
  type Asked,
  type Offer,
  type ScreenChoice,
} from '../display/overlay';
import type { DisplayStill } from '../display/still';
import { listFolders } from '../folders/folders';
import { listRemotes } from '../remote/remotes';
import { getSettings } from '../settings/settings';

const NOT_FREE = 'Nothing could be chosen while another program held the mouse and the keyboard.';

/**
 * What is taken as a way says, chosen by a hand on the screen where there is a choice.
 * @returns null where a person gave up @throws Error in plain words when there is nothing to take
 */
export async function choiceOf(
  way: Way,
  still: DisplayStill,
  patience: number,
): Promise<(ScreenChoice & Asked & { remark?: string }) | null> {
  const direct = await directChoice(way, still);
  if (direct && !way.ask) return direct;
  const offers = way.ask ? await thenOffers() : null;
  const start = direct ?? way.kind;
  const whole = wantedDisplay(way, still);
  const task = { start, wish: way, whole, offers, patience };
  // Read while a hand is choosing, so that nobody waits for it afterwards.
  still.pixels().catch(() => undefined);
  return chooseOnScreen(await allowedScreen(), still, task).catch((error: unknown) => {
    if (!(error instanceof NothingChosen)) throw error;
    // The picture is there, and the moment will not come back.
    const kept = direct ?? { kind: 'full' as const, crop: whole };
    return { ...kept, steps: [], remark: NOT_FREE };
  });
}

/** @returns null when it has to be chosen. @throws Error in plain words when there is nothing to take */
async function directChoice(way: Way, still: DisplayStill): Promise<ScreenChoice | null> {
  const { inUseIs, regions } = await getSettings();
  if (way.kind === 'full') return { kind: 'full', crop: wantedDisplay(way, still) };
  if (way.kind === 'repeat') {
    const last = regions.display;
    const crop = last && visiblePart(last.region, still);
    if (!crop) throw new Error('No region of this screen has been taken yet.');
    return { kind: 'repeat', crop };
  }
  if (way.kind !== 'window' || !way.inUse) return null;
  const { focused, pointer } = still;
  const window = windowInUse({ windows: still.windows.filter(isShown), focused, pointer }, inUseIs);
  const crop = window && visiblePart(windowPlace(window, way), still);
  if (!crop) throw new Error('No window is in use there.');
  return { kind: 'window', crop, window };
}

const isConfirmed = ({ unconfirmed }: { unconfirmed: boolean }): boolean => !unconfirmed;

/** What can be asked for on the screen: one key each, the same as on the stilled picture in Rezzik. */
async function thenOffers(): Promise<Offer[]> {
  const [folders, remotes] = await Promise.all([listFolders(), listRemotes()]);
  const places: Omit<Offer, 'key'>[] = [
    ...folders.filter(isConfirmed).map(({ id, name }) => ({
      label: name,
      step: { do: 'keep' as const, folderId: id },
    })),
    ...remotes.filter(isConfirmed).map(({ id, name }) => ({
      label: name,
      step: { do: 'send' as const, remoteId: id },
    })),
  ];
  return [
    { key: 'c', label: 'Copy', step: { do: 'copy' } },
    { key: 'm', label: 'Mark', step: { do: 'mark' } },
    { key: 'k', label: 'Keep, asking', step: { do: 'keepAsk' } },
    { key: 'l', label: 'Link', step: { do: 'link' } },
    { key: 'e', label: 'Mail', step: { do: 'mail' } },
    ...places.slice(0, 9).map((place, i) => ({ key: String(i + 1), ...place })),
  ];
}

function wantedDisplay(way: Way, { monitors, pointer, width, height }: DisplayStill): Rect {
  const whole = { x: 0, y: 0, width, height };
  if (way.display === 'all') return whole;
  const named = monitors.find((m) => m.name === way.display);
  const current = pointer && monitors.find((m) => contains(m, pointer));
  const monitor = named ?? current ?? monitors.find((m) => m.primary);
  return (monitor && visiblePart(monitor, whole)) ?? whole;
}
