import { chosenKind, isOnStill, type Kind, type Way } from '@/core/contracts/way';
import type { ThenStep } from '@/core/places/registry';
import type { Rect } from '@/core/geometry/rect';
import { visiblePart } from '@/core/region/windowChoice';
import { lastRegionAfter } from '@/core/take/lastRegion';
import { messageOf } from '../api/ask';
import { navigate } from '../thread/navigate';
import { encodeFrame } from '../pictures/pictures';
import { prepareThumb } from '../pictures/thumbs';
import { provenanceOf, type Choice } from './choice';
import { isCurrent, nextAttempt } from './attempt';
import { atOnce } from './atOnce';
import { chosenPart } from './clip/chosenPart';
import { checkRecords, endRecording, startRecording, type ChosenPart } from './clip/record';
import { useRecording } from './clip/state';
import { finishTake } from './finish';
import { useBack } from './back/backState';
import { closeFilm, openFilm } from './back/hold';
import { useTake, type Choosing } from './takeState';
import { dropLong, watchLong } from './long/watch';
import { sources } from './sources/list';
import { changeSettings, readSettings, useSettings } from '../settings/settingsStore';
import { onPicture, type OwnPicture, type Stilled } from './sources/contract';

let countdown: ReturnType<typeof setTimeout> | undefined;
/** Ends what is waited for. */
let stilling = new AbortController();

/** Where the person was when a take began in another view: back there once it is done. */
let cameFrom: string | null = null;

function goBack(): void {
  const path = cameFrom;
  cameFrom = null;
  if (path) navigate(path);
}

/**
 * Starts a take: at once, or after the delay; as set, or as a routine was written.
 * @param held a picture that is still already
 */
export function startTake(given?: Way, routine: string | null = null, held?: string): void {
  if (useTake.getState().phase.name !== 'ready') return;
  if (given || useSettings.getState().read) return begin(given, routine, held);
  // Whoever is quicker than the settings still takes as they say, unless Esc comes first.
  const mine = nextAttempt();
  useTake.setState({ phase: { name: 'stilling' } });
  const patience = new Promise((resolve) => setTimeout(resolve, PATIENCE));
  void Promise.race([readSettings(), patience]).then(() => {
    if (isCurrent(mine)) begin(given, routine);
  });
}

/** A server that is silent that long, ms, holds no take up: it goes by what is known. */
const PATIENCE = 2_000;

function begin(given: Way | undefined, routine: string | null, held?: string): void {
  const way = given ?? useSettings.getState().settings.way;
  if (way.kind === 'series') return setUpSeries(way);
  const { pathname } = window.location;
  cameFrom = pathname === '/take' ? null : pathname;
  // Take has to be there to show what is chosen.
  navigate('/take');
  const mine = nextAttempt();
  useTake.setState({ phase: { name: 'ready' }, problem: null, running: routine });
  // What is gone by is there already.
  if (way.delay === 0 || way.kind === 'back') {
    void still(mine, way, held);
    return;
  }
  // The delay was for this take: the next one is at once again.
  if (!given && !useSettings.getState().settings.delayStays) changeSettings({ way: { delay: 0 } });
  // Of a clip it comes after what is recorded was chosen.
  if (way.kind === 'clip' && way.records !== 'full') void still(mine, way);
  else afterDelay(way, () => void still(mine, way));
}

function afterDelay(way: Way, act: () => void): void {
  if (way.delay === 0) return act();
  const until = Date.now() + way.delay * 1000;
  useTake.setState({ phase: { name: 'counting', until, seconds: way.delay, way } });
  countdown = setTimeout(act, way.delay * 1000);
}

/** What is taken by the clock is set up in a view of its own. */
function setUpSeries({ source }: Way): void {
  useTake.setState({ phase: { name: 'ready' } });
  navigate('/series/new', 'push', `?from=${source}`);
}

/** Esc: back to the film the picture is from, else to where one was, with nothing left behind. */
export function cancelTake(): void {
  const { phase } = useTake.getState();
  if (phase.name === 'choosing' && useBack.getState().film) {
    letGo(phase);
    useTake.setState({ phase: { name: 'film', way: phase.way }, problem: null });
    return;
  }
  dropTake();
  goBack();
}

/** A take that is not wanted any more; what there is of it goes. */
export function dropTake(): void {
  nextAttempt();
  stilling.abort();
  stilling = new AbortController();
  clearTimeout(countdown);
  dropLong();
  closeFilm();
  const { phase } = useTake.getState();
  if (phase.name === 'choosing') letGo(phase);
  useTake.setState({ phase: { name: 'ready' }, running: null });
}

export function letGo({ stilled }: { stilled: Stilled }): void {
  stilled.letGo?.();
  stilled.picture.close();
}

/** The display a way needs to see: windows may be anywhere, a region is where it was. */
export function neededDisplay(way: Way): string {
  const kind = chosenKind(way);
  if (kind === 'window') return 'all';
  if (kind !== 'repeat') return way.display;
  return useSettings.getState().settings.regions[way.source]?.display ?? way.display;
}

async function still(mine: number, way: Way, held?: string): Promise<void> {
  if (way.kind === 'long') return watch(mine, way);
  if (way.kind === 'back') return lookBack(mine, way);
  if (way.kind === 'clip' && way.records === 'full') return record(mine, way);
  useTake.setState({ phase: { name: 'stilling', way } });
  const { signal } = stilling;
  try {
    if (way.kind === 'clip') checkRecords(way);
    const wanted = { ...way, display: neededDisplay(way), held, signal };
    const stilled = await sources[way.source].still(wanted);
    if (!isCurrent(mine)) return letGo({ stilled });
    // Encoding begins while the region is being chosen, so confirming has nothing to wait for.
    const png = stilled.png ? Promise.resolve(stilled.png) : encodeFrame(stilled.picture);
    prepareThumb(stilled.picture);
    png.catch(() => undefined);
    const begun: Choosing = { name: 'choosing', way, stilled, png, kind: chosenKind(way) };
    const choice = atOnce(begun);
    if (!choice) {
      useTake.setState({ phase: begun });
      if (document.hidden) document.title = 'Choose on the stilled picture – Rezzik';
    } else if (asks(way)) useTake.setState({ phase: { ...begun, chosen: choice } });
    else await confirmTake(begun, choice);
  } catch (error) {
    if (!isCurrent(mine)) return;
    useTake.setState({ phase: { name: 'ready' }, problem: whyNotStill(error), running: null });
  }
}

/** Something is scrolled, until it is taken or left. */
async function watch(mine: number, way: Way): Promise<void> {
  try {
    const { long } = sources[way.source].can;
    if (long !== true) throw new Error(long);
    useTake.setState({ phase: { name: 'watching', way } });
    await watchLong(way);
  } catch (error) {
    if (!isCurrent(mine)) return;
    dropLong();
    useTake.setState({ phase: { name: 'ready' }, problem: whyNotStill(error), running: null });
  }
}

/** The moments that are held are looked through. */
async function lookBack(mine: number, way: Way): Promise<void> {
  useTake.setState({ phase: { name: 'stilling', way } });
  try {
    const film = await openFilm(way.source);
    useBack.setState({ film });
    if (isCurrent(mine)) useTake.setState({ phase: { name: 'film', way } });
    else closeFilm();
  } catch (error) {
    if (!isCurrent(mine)) return;
    useTake.setState({ phase: { name: 'ready' }, problem: whyNotStill(error), running: null });
  }
}

/** Enter, and the saffron button: a clip that is recorded is ended, all else is taken. */
export function takeOrEnd(): void {
  if (endsClip()) void endRecording();
  else startTake();
}

/** The next step of what is chosen is the end of what is recorded. */
export const endsClip = (): boolean =>
  useRecording.getState().now !== null && useSettings.getState().settings.way.kind === 'clip';

/** What moves is recorded, until it is ended. */
async function record(mine: number, way: Way, part?: ChosenPart): Promise<void> {
  useTake.setState({ phase: { name: 'stilling', way } });
  try {
    await startRecording(way, part);
    if (isCurrent(mine)) useTake.setState({ phase: { name: 'ready' }, running: null });
    else await endRecording({ bin: true });
  } catch (error) {
    if (!isCurrent(mine)) return;
    useTake.setState({ phase: { name: 'ready' }, problem: messageOf(error), running: null });
  }
}

/** Browsers say a lack of memory in their own ways: a RangeError, or an exception of the canvas. */
export const whyNotStill = (error: unknown): string =>
  error instanceof RangeError || error instanceof DOMException
    ? 'This browser has too little memory for a picture of that size. Nothing was taken; one display or window alone may fit.'
    : messageOf(error);

/** Another kind on the picture that is already still. */
export function changeKind(kind: Kind): void {
  const { phase } = useTake.getState();
  if (phase.name !== 'choosing' || !isOnStill(kind)) return;
  const to = phase.way.kind === 'clip' ? { records: kind } : { kind };
  const way = { ...phase.way, ...to, inUse: false };
  const next: Choosing = { ...phase, way, kind, chosen: undefined };
  try {
    const choice = atOnce(next);
    if (choice) choose(choice, next);
    else useTake.setState({ phase: next, problem: null });
  } catch (error) {
    useTake.setState({ problem: messageOf(error) });
  }
}

/** A choice is made: it is taken, or what to do with it is asked. */
export function choose(choice: Choice, from?: Choosing): void {
  const { phase } = useTake.getState();
  const choosing = from ?? (phase.name === 'choosing' ? phase : null);
  if (!choosing) return;
  if (asks(choosing.way)) useTake.setState({ phase: { ...choosing, chosen: choice } });
  else void confirmTake(choosing, choice);
}

/** What to do with it is asked, but of a clip, which opens in a view of its own. */
const asks = ({ ask, kind }: Way): boolean => ask && kind !== 'clip';

/** The chosen part of what moves is recorded, after the delay. */
function recordPart(choosing: Choosing, choice: Choice): void {
  const mine = nextAttempt();
  const [way, part] = chosenPart(choosing, choice);
  rememberRegion(choosing.way, choosing.kind, choosing.stilled, choice.crop);
  letGo(choosing);
  afterDelay(way, () => void record(mine, way, part));
}

/** The chosen part of a stilled picture becomes a shot. */
export async function confirmTake(
  choosing: Choosing,
  choice: Choice,
  then: readonly ThenStep[] = choosing.way.then,
): Promise<void> {
  const { way, stilled, png, kind } = choosing;
  if (way.kind === 'clip') return recordPart(choosing, choice);
  const marking = then.some((step) => step.do === 'mark');
  closeFilm();
  useTake.setState({ phase: { name: marking ? 'leaving' : 'ready' }, running: null });
  if (!marking) goBack();
  cameFrom = null;
  rememberRegion(way, kind, stilled, choice.crop);
  const { window, part } = choice;
  const own = window && (await stilled.ofWindow?.(window.id).catch(() => null));
  const framed: Stilled = {
    ...stilled,
    ...(own && { picture: own.picture, pointer: own.pointer }),
    title: part ?? window?.title ?? stilled.title,
    provenance: { ...stilled.provenance, ...provenanceOf(choice) },
  };
  finishTake({
    stilled: framed,
    png: own ? encodeFrame(own.picture) : png,
    choice: own ? onOwn(choice, own) : choice,
    then,
    way: { ...way, kind },
    again: startTake,
  });
  stilled.letGo?.();
}

/** A choice as it lies on the window's own picture. */
function onOwn(choice: Choice, { picture, origin, whole }: OwnPicture): Choice {
  const crop = choice.place && visiblePart(onPicture(choice.place, origin), picture);
  return { ...choice, ...(crop && { crop }), ...(whole && { remark: undefined }) };
}

function rememberRegion(way: Way, kind: Kind, { origin }: Stilled, crop: Rect): void {
  const region = { ...crop, x: crop.x + origin.x, y: crop.y + origin.y };
  const taken = { display: way.display, region, at: new Date().toISOString() };
  const before = useSettings.getState().settings.regions[way.source];
  const last = lastRegionAfter(kind, taken, before);
  if (last) changeSettings({ regions: { [way.source]: last } });
}
