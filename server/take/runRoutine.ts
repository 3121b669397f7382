import { setTimeout as wait } from 'node:timers/promises';
import { isShown } from '@/core/contracts/display';
import { lastRegionAfter } from '@/core/take/lastRegion';
import { OFF_DISPLAY, takenDocument } from '@/core/take/takenDocument';
import { withLook } from '@/core/document/look';
import { windowInUse } from '@/core/take/windowInUse';
import { doersWithPage } from '../places';
import type { Stored } from '@/core/contracts/shot';
import type { Kind, Routine, Way } from '@/core/contracts/way';
import { autoTitle } from '@/core/take/autoTitle';
import { contains, type Rect } from '@/core/geometry/rect';
import { visiblePart, windowPlace } from '@/core/region/windowChoice';
import { listFolders } from '../folders/folders';
import { getLook } from '../looks/looks';
import { listRemotes } from '../remote/remotes';
import { changeSettings, getSettings } from '../settings/settings';
import { storeShot, takenOn, type NewShot } from '../shots/store';
import { allowedScreen } from '../display/access';
import { letArrivingGo } from './arriving';
import { desktopNotice } from '../display/notice';
import {
  chooseOnScreen,
  NothingChosen,
  type Asked,
  type Offer,
  type ScreenChoice,
} from '../display/overlay';
import { heldMoments } from '../display/held/holding';
import { tellPages } from '../display/openPages';
import { VISIBLE_ONLY } from '../display/own';
import type { ScreenPixels } from '../display/pixmap';
import { raiseRezzik } from '../display/raiseRezzik';
import { framed, pointerOn, provenanceOf, screenPng } from './takeDisplay';
import { goOnInPage } from './inPage';
import { copyAtOnce } from './quickCopy';
import { thenSaid } from './then';
import { stillScreen, type DisplayStill } from '../display/still';

/** How long the mouse and the keyboard are waited for where something is to be chosen, ms. */
const PATIENCE = 60_000;
const NOT_FREE = 'Nothing could be chosen while another program held the mouse and the keyboard.';

/** Takes on this computer's screen as a routine says, with Rezzik itself out of sight. */
export async function runOnDisplay(routine: Routine, patience = PATIENCE): Promise<void> {
  try {
    const { way } = routine;
    if (way.kind === 'back') return await lookBack(routine);
    if (way.kind === 'series') throw new Error('A series is set up in Rezzik’s page.');
    if (way.kind === 'clip') throw new Error('A clip is recorded in Rezzik’s page.');
    if (way.kind === 'long') throw new Error('A long page is taken in Rezzik’s page.');
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

/** The film is looked through in the page; from now on no moment goes. */
async function lookBack({ id, name }: Routine): Promise<void> {
  await heldMoments();
  const there = 'The last moments are held.';
  const path = `/take?routine=${id}`;
  const isOpen = await goOnInPage({ name, tell: { film: id }, path, there, act: 'look back' });
  if (isOpen) await raiseRezzik(await allowedScreen());
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
  const { crop, window } = choice;
  const then = choice.steps ?? way.then;
  const place = window ? windowPlace(window, way) : crop;
  const { pixels, origin, visibleOnly, offDisplay, ...cut } = await framed(still, place, window);
  const provenance = provenanceOf(still, crop, window, choice.part);
  const taken = { crop: cut.crop, shape: choice.shape, part: choice.part };
  const bare = takenDocument(pixels, taken, way.pointer ? pointerOn(still, origin) : null);
  const look = way.look ? await getLook(way.look).catch(() => null) : null;
  const document = look ? withLook(bare, look) : bare;
  // Where nothing has to be painted, what is to be pasted is there before it is stored.
  const isPlain = !choice.shape && document.marks.length === 0 && !document.finish && !way.size;
  const copies = then.some((step) => step.do === 'copy');
  const early = copies && isPlain ? await copyAtOnce(pixels, cut.crop, provenance) : null;
  const from = choice.part ?? window?.title ?? provenance.display ?? '';
  const { id } = await storeTake(pixels, { id: early?.id, provenance, document }, (count) =>
    autoTitle(choice.kind, count, from),
  ).catch((error: unknown) => {
    throw early?.held ? new OnlyCopied(early.said, error) : error;
  });
  if (early) await letArrivingGo(id);
  await rememberRegion(choice.kind, crop);
  const noLook = way.look && !look && 'The look of this routine is gone.';
  const remarks = [choice.remark, noLook, visibleOnly && VISIBLE_ONLY, offDisplay && OFF_DISPLAY];
  const lines = remarks.filter((line) => typeof line === 'string');
  const doers = { ...doersWithPage, ...(early && { copy: () => early.copied }) };
  lines.push(...(await thenSaid(then, { id, leaves: way }, doers)));
  const mark = then.some((step) => step.do === 'mark');
  const keep = then.some((step) => step.do === 'keepAsk');
  await say(name, then.length ? lines : [...lines, 'On the Shelf'], { shot: id, mark, keep });
  if (mark || keep) await raiseRezzik(await allowedScreen());
}

/** The place on the screen that Repeat region takes again. */
async function rememberRegion(kind: Kind, region: Rect): Promise<void> {
  const { regions } = await getSettings();
  const taken = { display: 'all', region, at: new Date().toISOString() };
  const last = lastRegionAfter(kind, taken, regions.display);
  if (last) await changeSettings({ regions: { display: last } });
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
