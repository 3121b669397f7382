import { setTimeout as wait } from 'node:timers/promises';
import type { Routine, ThenStep, Way } from '@/core/contracts/way';
import { contains, type Rect } from '@/core/geometry/rect';
import { visiblePart, windowPlace, windowsAt } from '@/core/region/windowChoice';
import { pointerPiece } from '@/core/marks/piece/pointer';
import { untouched } from '@/core/shot/document';
import { listFolders } from '../folders/folders';
import { keepCopy } from '../keep/copies';
import { changeSettings, getSettings } from '../settings/settings';
import { storeShot } from '../shots/store';
import { allowedScreen } from './access';
import { copyToDisplay } from './clipboard';
import { desktopNotice } from './notice';
import { chooseOnScreen, type ScreenChoice } from './overlay';
import { tellPages } from './pages';
import { raiseRezzik } from './raise';
import { provenanceOf, screenPng } from './shots';
import { stillScreen, type Still } from './still';

/** Takes on this computer's screen as a routine says, with Rezzik itself out of sight. */
export async function runOnDisplay(routine: Routine): Promise<void> {
  try {
    const { way } = routine;
    if (way.delay > 0) await wait(way.delay * 1000);
    const still = await stillScreen(await allowedScreen());
    try {
      const choice = await choiceOf(way, still);
      if (choice) await finish(routine, still, choice);
    } finally {
      still.letGo();
    }
  } catch (error) {
    const words = error instanceof Error ? error.message : String(error);
    await say(routine.name, [`Not taken. ${words}`], null);
  }
}

async function choiceOf(way: Way, still: Still): Promise<ScreenChoice | null> {
  const { inUseIs, regions } = await getSettings();
  if (way.kind === 'full') return { crop: wantedDisplay(way, still) };
  if (way.kind === 'repeat') {
    const last = regions.display;
    const crop = last && visiblePart(last.region, still);
    if (!crop) throw new Error('No region of this screen has been taken yet.');
    return { crop };
  }
  if (way.kind === 'window' && way.inUse) {
    const shown = still.windows.filter((w) => !w.minimised);
    const under = still.pointer ? windowsAt(shown, still.pointer)[0] : undefined;
    const focused = shown.find((w) => w.id === still.focused);
    const window = inUseIs === 'pointer' ? (under ?? focused) : focused;
    const crop = window && visiblePart(windowPlace(window, way), still);
    if (!crop) throw new Error('No window is in use there.');
    return { crop, window };
  }
  const { atOnce, border, margin } = way;
  const kind = way.kind === 'window' ? 'window' : 'region';
  return chooseOnScreen(await allowedScreen(), still, { kind, atOnce, border, margin });
}

function wantedDisplay(way: Way, { monitors, pointer, width, height }: Still): Rect {
  const whole = { x: 0, y: 0, width, height };
  if (way.display === 'all') return whole;
  const named = monitors.find((m) => m.name === way.display);
  const current = pointer && monitors.find((m) => contains(m, pointer));
  const monitor = named ?? current ?? monitors.find((m) => m.primary);
  return (monitor && visiblePart(monitor, whole)) ?? whole;
}

async function finish(routine: Routine, still: Still, choice: ScreenChoice): Promise<void> {
  const { way, name } = routine;
  const { crop, window } = choice;
  const covered = window && still.own.includes(window.id);
  const pixels = covered ? await still.withOwn(window.id) : await still.pixels();
  const piece = way.pointer && still.pointer ? pointerPiece(still.pointer) : null;
  const { id } = await storeShot({
    picture: await screenPng(pixels),
    provenance: provenanceOf(still, crop, window),
    document: { ...untouched(pixels), view: { crop }, marks: piece ? [piece] : [] },
  });
  if (way.kind === 'region' || way.kind === 'part') {
    const { x, y, width, height } = crop;
    const at = new Date().toISOString();
    await changeSettings({
      regions: { display: { display: 'all', region: { x, y, width, height }, at } },
    });
  }
  const lines: string[] = [];
  for (const step of way.then) lines.push(await doStep(step, id));
  const mark = way.ask || way.then.some((step) => step.do === 'mark');
  await say(name, lines.length ? lines : ['On the Shelf'], { shot: id, mark });
  if (mark) await raiseRezzik(await allowedScreen());
}

/** One thing done with the shot; what fails is said and stops nothing else. */
async function doStep(step: ThenStep, shot: string): Promise<string> {
  try {
    if (step.do === 'mark') return 'Open in Mark';
    if (step.do === 'copy') {
      await copyToDisplay(shot);
      return 'Copied: paste it anywhere';
    }
    const folders = await listFolders();
    const folder = folders.find((f) => (step.folderId ? f.id === step.folderId : f.isDefault));
    if (!folder) return 'Not kept: its folder is gone. The shot is safe on the Shelf.';
    const { path } = await keepCopy(shot, { folderId: folder.id });
    return `Kept: ${path}`;
  } catch (error) {
    const words = error instanceof Error ? error.message : String(error);
    return `Not ${step.do === 'copy' ? 'copied' : 'kept'}. ${words} The shot is safe on the Shelf.`;
  }
}

async function say(
  routine: string,
  lines: string[],
  taken: { shot: string; mark: boolean } | null,
): Promise<void> {
  tellPages({ routine, lines, ...(taken ?? {}) });
  const { notice } = await getSettings();
  if (notice || !taken) await desktopNotice(routine, lines.join('\n'));
}
