import { setTimeout as wait } from 'node:timers/promises';
import { isShown } from '@/core/contracts/display';
import type { Stored } from '@/core/contracts/shot';
import type { Routine, Way } from '@/core/contracts/way';
import { autoTitle } from '@/core/take/autoTitle';
import { describedAs } from '@/core/keep/leaving';
import { contains, type Rect } from '@/core/geometry/rect';
import { visiblePart, windowPlace, windowsAt } from '@/core/region/windowChoice';
import { untouched } from '@/core/document/view';
import { shapedView } from '@/core/document/viewShape';
import { listFolders } from '../folders/folders';
import { listRemotes } from '../remote/remotes';
import { changeSettings, getSettings } from '../settings/settings';
import { storeShot, takenOn, type NewShot } from '../shots/store';
import { allowedScreen } from './access';
import { letArrivingGo } from './arriving';
import { desktopNotice } from './notice';
import {
  chooseOnScreen,
  NothingChosen,
  type Asked,
  type Offer,
  type ScreenChoice,
} from './overlay';
import { tellPages } from './pages';
import { VISIBLE_ONLY } from './own';
import type { ScreenPixels } from './pixmap';
import { raiseRezzik } from './raise';
import { framed, pieceOf, provenanceOf, screenPng } from './shots';
import { copyAtOnce } from './quickCopy';
import { stillScreen, type DisplayStill } from './still';
import { doStep } from './thenSteps';

/** How long the mouse and the keyboard are waited for where something is to be chosen, ms. */
const PATIENCE = 60_000;
const NOT_FREE = 'Nothing could be chosen while another program held the mouse and the keyboard.';

/** Takes on this computer's screen as a routine says, with Rezzik itself out of sight. */
export async function runOnDisplay(routine: Routine, patience = PATIENCE): Promise<void> {
  try {
    const { way } = routine;
    if (way.delay > 0) await wait(way.delay * 1000);
    const still = await stillScreen(await allowedScreen());
    try {
      const choice = await choiceOf(way, still, patience);
      if (choice) await finish(routine, still, choice);
    } finally {
      still.letGo();
    }
  } catch (error) {
    const words = error instanceof Error ? error.message : String(error);
    const said = error instanceof OnlyCopied ? words : `Not taken. ${words}`;
    await say(routine.name, [said], null);
  }
}

/** What the routine takes, chosen by a hand on the screen where there is a choice. */
async function choiceOf(
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
  const shown = still.windows.filter(isShown);
  const under = still.pointer ? windowsAt(shown, still.pointer)[0] : undefined;
  const focused = shown.find((w) => w.id === still.focused);
  const window = inUseIs === 'pointer' ? (under ?? focused) : focused;
  const crop = window && visiblePart(windowPlace(window, way), still);
  if (!crop) throw new Error('No window is in use there.');
  return { kind: 'window', crop, window };
}

/** What can be asked for on the screen: one key each, the same as on the stilled picture in Rezzik. */
async function thenOffers(): Promise<Offer[]> {
  const [folders, remotes] = await Promise.all([listFolders(), listRemotes()]);
  const places: Omit<Offer, 'key'>[] = [
    ...folders.map(({ id, name }) => ({
      label: name,
      step: { do: 'keep' as const, folderId: id },
    })),
    ...remotes.map(({ id, name }) => ({
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

/** What was taken is on the clipboard, and for the time being nowhere else but in a file. */
class OnlyCopied extends Error {
  constructor(said: string, why: unknown) {
    const words = why instanceof Error ? why.message : String(why);
    super(`${said}. It could not be stored; that is done when Rezzik starts again. (${words})`);
  }
}

async function finish(
  { way, name }: Routine,
  still: DisplayStill,
  choice: ScreenChoice & Asked & { remark?: string },
): Promise<void> {
  const { crop, shape, window } = choice;
  const then = choice.steps ?? way.then;
  const place = window ? windowPlace(window, way) : crop;
  const { pixels, origin, visibleOnly, ...cut } = await framed(still, place, window);
  const provenance = provenanceOf(still, crop, window, choice.part);
  const piece = way.pointer ? pieceOf(still, origin) : null;
  // Where nothing has to be painted, what is to be pasted is there before it is stored.
  const isPlain = !shape && !piece && !way.size;
  const copies = then.some((step) => step.do === 'copy');
  const early = copies && isPlain ? await copyAtOnce(pixels, cut.crop, provenance) : null;
  const document = {
    ...untouched(pixels),
    view: shape ? shapedView(shape, crop, pixels) : { crop: cut.crop },
    marks: piece ? [piece] : [],
    ...(choice.part && { description: describedAs(choice.part) }),
  };
  const from = choice.part ?? window?.title ?? provenance.display ?? '';
  const { id } = await storeTake(pixels, { id: early?.id, provenance, document }, (count) =>
    autoTitle(choice.kind, count, from),
  ).catch((error: unknown) => {
    throw early?.held ? new OnlyCopied(early.said, error) : error;
  });
  if (early) await letArrivingGo(id);
  if (choice.kind === 'region' || choice.kind === 'part') {
    const { x, y, width, height } = crop;
    const at = new Date().toISOString();
    await changeSettings({
      regions: { display: { display: 'all', region: { x, y, width, height }, at } },
    });
  }
  const lines = [choice.remark, visibleOnly && VISIBLE_ONLY].filter(
    (line) => typeof line === 'string',
  );
  for (const step of then) {
    lines.push(step.do === 'copy' && early ? early.said : await doStep(step, id, way));
  }
  const mark = then.some((step) => step.do === 'mark');
  const keep = then.some((step) => step.do === 'keepAsk');
  await say(name, then.length ? lines : [...lines, 'On the Shelf'], { shot: id, mark, keep });
  if (mark || keep) await raiseRezzik(await allowedScreen());
}

/** Stores a whole frame; its title counts the takes of the day. */
async function storeTake(
  pixels: ScreenPixels,
  shot: Omit<NewShot, 'picture'>,
  titled: (count: number) => string,
): Promise<Stored> {
  const picture = screenPng(pixels);
  const title = titled((await takenOn(new Date())) + 1);
  return storeShot({ ...shot, picture: await picture, title, titleMade: true });
}

async function say(
  routine: string,
  lines: string[],
  taken: { shot: string; mark: boolean; keep: boolean } | null,
): Promise<void> {
  tellPages({ routine, lines, ...(taken ?? {}) });
  const { notice } = await getSettings();
  if (notice || !taken) await desktopNotice(routine, lines.join('\n'));
}
