import { linkInputSchema } from '@/core/contracts/link';
import { mailInputSchema } from '@/core/contracts/mail';
import { setTimeout as wait } from 'node:timers/promises';
import { isShown } from '@/core/contracts/display';
import type { Routine, ThenStep, Way } from '@/core/contracts/way';
import { autoTitle } from '@/core/naming/autoTitle';
import { saidOf } from '@/core/keep/saidOf';
import { contains, type Rect } from '@/core/geometry/rect';
import { visiblePart, windowPlace, windowsAt } from '@/core/region/windowChoice';
import { untouched } from '@/core/shot/document';
import { shapedView } from '@/core/shot/viewShape';
import { listFolders } from '../folders/folders';
import { keepCopy } from '../keep/copies';
import { makeLink } from '../links/links';
import { dropMessage } from '../mail/drop';
import { messageFor } from '../mail/message';
import { openCopy } from '../programs/programs';
import { sendTo } from '../remote/sendings';
import { listRemotes } from '../remote/remotes';
import { changeSettings, getSettings } from '../settings/settings';
import { storeShot, takenOn } from '../shots/store';
import { allowedScreen } from './access';
import { copyToDisplay } from './clipboard';
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
import { raiseRezzik } from './raise';
import { framed, pieceOf, provenanceOf, screenPng } from './shots';
import { stillScreen, type Still } from './still';

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
    await say(routine.name, [`Not taken. ${words}`], null);
  }
}

/** What the routine takes, chosen by a hand on the screen where there is a choice. */
async function choiceOf(
  way: Way,
  still: Still,
  patience: number,
): Promise<(ScreenChoice & Asked & { remark?: string }) | null> {
  const direct = await directChoice(way, still);
  if (direct && !way.ask) return direct;
  const offers = way.ask ? await thenOffers() : null;
  const start = direct ?? way.kind;
  const whole = wantedDisplay(way, still);
  const task = { start, wish: way, whole, offers, patience };
  return chooseOnScreen(await allowedScreen(), still, task).catch((error: unknown) => {
    if (!(error instanceof NothingChosen)) throw error;
    // The picture is there, and the moment will not come back.
    const kept = direct ?? { kind: 'full' as const, crop: whole };
    return { ...kept, steps: [], remark: NOT_FREE };
  });
}

/** @returns null when it has to be chosen. @throws Error in plain words when there is nothing to take */
async function directChoice(way: Way, still: Still): Promise<ScreenChoice | null> {
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

function wantedDisplay(way: Way, { monitors, pointer, width, height }: Still): Rect {
  const whole = { x: 0, y: 0, width, height };
  if (way.display === 'all') return whole;
  const named = monitors.find((m) => m.name === way.display);
  const current = pointer && monitors.find((m) => contains(m, pointer));
  const monitor = named ?? current ?? monitors.find((m) => m.primary);
  return (monitor && visiblePart(monitor, whole)) ?? whole;
}

async function finish(
  { way, name }: Routine,
  still: Still,
  choice: ScreenChoice & Asked & { remark?: string },
): Promise<void> {
  const { crop, shape, window } = choice;
  const then = choice.steps ?? way.then;
  const place = window ? windowPlace(window, way) : crop;
  const { pixels, origin, visibleOnly, ...cut } = await framed(still, place, window);
  const from = window?.title ?? provenanceOf(still, crop).display ?? '';
  const title = autoTitle(choice.kind, (await takenOn(new Date())) + 1, from);
  const piece = way.pointer ? pieceOf(still, origin) : null;
  const { id } = await storeShot({
    picture: await screenPng(pixels),
    title,
    titleMade: true,
    provenance: provenanceOf(still, crop, window),
    document: {
      ...untouched(pixels),
      view: shape ? shapedView(shape, crop, pixels) : { crop: cut.crop },
      marks: piece ? [piece] : [],
    },
  });
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
  for (const step of then) lines.push(await doStep(step, id, way));
  const mark = then.some((step) => step.do === 'mark');
  const keep = then.some((step) => step.do === 'keepAsk');
  await say(name, then.length ? lines : [...lines, 'On the Shelf'], { shot: id, mark, keep });
  if (mark || keep) await raiseRezzik(await allowedScreen());
}

/** One thing done with the shot; what fails is said and stops nothing else. */
async function doStep(step: ThenStep, shot: string, way: Way): Promise<string> {
  const size = way.size ?? {};
  const leaves = { ...size, ...(way.format && { format: way.format }) };
  try {
    if (step.do === 'mark') return 'Open in Mark';
    if (step.do === 'keepAsk') return 'Keep asks for its name';
    if (step.do === 'copy') {
      await copyToDisplay(shot, size);
      return 'Copied: paste it anywhere';
    }
    if (step.do === 'link') {
      const { address, openAddress } = await makeLink(shot, linkInputSchema.parse({}));
      return `Link: ${openAddress ?? address}`;
    }
    if (step.do === 'mail') {
      await dropMessage(shot, await messageFor(shot, mailInputSchema.parse(leaves)));
      return 'A message lies in the mail drop';
    }
    if (step.do === 'print') return 'Print it from Rezzik; it is on the Shelf';
    if (step.do === 'here') return 'Its folder is the browser’s: keep it from Rezzik’s page';
    if (step.do === 'send') return saidOf(await sendTo(shot, step.remoteId));
    const folders = await listFolders();
    const wanted = step.do === 'keep' ? step.folderId : null;
    const folder = folders.find((f) => (wanted ? f.id === wanted : f.isDefault));
    if (!folder) return 'Not kept: its folder is gone. The shot is safe on the Shelf.';
    const { id, path } = await keepCopy(shot, { folderId: folder.id, ...leaves });
    if (step.do !== 'program') return `Kept: ${path}`;
    await openCopy(id, step.program);
    return `Kept, and opened in ${step.program}: ${path}`;
  } catch (error) {
    const words = error instanceof Error ? error.message : String(error);
    const what = {
      copy: 'Not copied',
      link: 'No link',
      mail: 'No message',
      send: 'Not sent',
    } as const;
    const said = step.do in what ? what[step.do as keyof typeof what] : 'Not kept';
    return `${said}. ${words} The shot is safe on the Shelf.`;
  }
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
