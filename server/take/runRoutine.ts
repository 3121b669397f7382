import { setTimeout as wait } from 'node:timers/promises';
import { lastRegionAfter } from '@/core/take/lastRegion';
import { OFF_DISPLAY, takenDocument } from '@/core/take/takenDocument';
import { withLook } from '@/core/document/look';
import { doersWithPage } from '../places';
import type { Stored } from '@/core/contracts/shot';
import type { Kind, Routine } from '@/core/contracts/way';
import { autoTitle } from '@/core/take/autoTitle';
import type { Rect } from '@/core/geometry/rect';
import { windowPlace } from '@/core/region/windowChoice';
import { getLook } from '../looks/looks';
import { changeSettings, getSettings } from '../settings/settings';
import { storeShot, takenOn, type NewShot } from '../shots/store';
import { allowedScreen } from '../display/access';
import { letArrivingGo } from './arriving';
import type { Asked, ScreenChoice } from '../display/overlay';
import { heldMoments } from '../display/held/holding';
import { VISIBLE_ONLY } from '../display/own';
import type { ScreenPixels } from '../display/pixmap';
import { raiseRezzik } from '../display/raiseRezzik';
import { framed, pointerOn, provenanceOf, screenPng } from './takeDisplay';
import { choiceOf } from './choice';
import { clipByKey } from './clipByKey';
import { goOnInPage } from './inPage';
import { copyAtOnce } from './quickCopy';
import { say } from './said';
import { thenSaid } from './then';
import { stillScreen, type DisplayStill } from '../display/still';

/** How long the mouse and the keyboard are waited for where something is to be chosen, ms. */
const PATIENCE = 60_000;

/** Takes on this computer's screen as a routine says, with Rezzik itself out of sight. */
export async function runOnDisplay(routine: Routine, patience = PATIENCE): Promise<void> {
  try {
    const { way } = routine;
    if (way.kind === 'back') return await lookBack(routine);
    if (way.kind === 'series') throw new Error('A series is set up in Rezzik’s page.');
    if (way.kind === 'clip') return await clipByKey(routine, patience);
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
