import type { Way } from '@/core/contracts/way';
import type { Point } from '@/core/geometry/point';
import type { Rect } from '@/core/geometry/rect';
import type { Size } from '@/core/geometry/size';
import { visiblePart } from '@/core/region/windowChoice';
import type { Progress } from '@/core/stitch/longPage';
import { addFrame, beginStitch, filmOf, findScrolled, finishStitch } from '../../pictures/stitch';
import type { Stilled } from '../sources/contract';
import { sources } from '../sources/list';
import { messageOf } from '../../api/ask';
import { Keeper } from './keeper';
import { Amiss, seenOf, thingToWatch } from './place';
import { Scroller } from './scroller';
import { BEGIN, forgetLong, framesIn, isStill, useLong, wordsFor, type Watched } from './state';

/** What a long page is of, as far as it was seen. */
interface Watch {
  way: Way;
  /** It is over: what is still on its way is dropped. */
  stopped: boolean;
  /** The first picture, until it is known what is watched: the page begins with it. */
  first: Stilled | null;
  /** When the first and the last were seen. */
  from: string;
  until: string;
  title: string;
  provenance: Stilled['provenance'] | null;
  /** Of every frame. */
  size: Size | null;
  /** Where what is watched begins on the source, once that is known. */
  origin: Point | null;
  scroller: Scroller;
  keeper: Keeper;
  /** A person wants to say what is watched. */
  wantsArea: boolean;
  /** What they said: nothing where they left it. */
  chosen: ((area: Rect | null) => void) | null;
  /** So many showed that something moves, and not what. */
  riddles: number;
  /** It cannot be watched just now, which is said. */
  amiss: boolean;
  /** At so many looks, up to now, nothing was scrolled. */
  still: number;
  /** A person has asked for what is had. */
  taking: boolean;
}

let watch: Watch | null = null;

/** Until this view is seen as it is on a screen that shows Rezzik itself, ms: its change is no scrolling. */
const SETTLES = 900;
/** Between two looks, ms: by hand, and by itself. */
const EVERY = 100;
const SOON = 30;
/** It is looked again where nothing could be seen, ms. */
const AGAIN = 1000;
/** It has come to rest when so many looks have found nothing new; so long that is waited for, ms. */
const AT_REST = 2;
const REST_WITHIN = 600;
/** The room the film has, in its own pixels, and how narrow it may become. */
const FILM = { width: 416, height: 1040 };
const NARROWEST = 240;

const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** Watches until it is over. @throws with words where there is nothing to see any more */
export async function watchLong(way: Way): Promise<void> {
  dropLong();
  const mine: Watch = {
    ...{ way, stopped: false, first: null, from: '', until: '' },
    ...{
      title: '',
      provenance: null,
      size: null,
      origin: null,
      riddles: 0,
      amiss: false,
      still: 0,
      taking: false,
    },
    scroller: new Scroller(way, () => mine.origin),
    keeper: new Keeper(),
    ...{ wantsArea: false, chosen: null },
  };
  watch = mine;
  await beginStitch();
  if (sources[way.source].showsRezzik) await pause(SETTLES);
  while (!mine.stopped) {
    const stilled = await seenNow(mine);
    if (!stilled) continue;
    mine.from ||= stilled.provenance.takenAt;
    if (mine.wantsArea) await chooseOn(mine, stilled);
    else if (!mine.stopped) await look(mine, stilled);
    if (mine.first !== stilled) letGo(stilled);
    await pause(useLong.getState().scrolling ? SOON : EVERY);
  }
}

/** The next picture is one on which to say what is watched. */
export function chooseArea(): void {
  if (watch) watch.wantsArea = true;
}

/** Watches this part of that picture, and nothing that was had before; or goes on as it was. */
export const watchArea = (area: Rect | null): void => watch?.chosen?.(area);

async function chooseOn(mine: Watch, stilled: Stilled): Promise<void> {
  mine.wantsArea = false;
  useLong.setState({ choosing: stilled, scrolling: false });
  const area = await new Promise<Rect | null>((resolve) => (mine.chosen = resolve));
  mine.chosen = null;
  if (mine.stopped) return;
  useLong.setState({ choosing: null });
  if (!area) return;
  if (mine.first && mine.first !== stilled) letGo(mine.first);
  Object.assign(mine, { first: null, size: null, from: stilled.provenance.takenAt });
  await beginStitch();
  useLong.setState({ progress: null, problem: null, said: 'Scroll on. Enter when all is there.' });
  Object.assign(mine, { title: stilled.title, provenance: stilled.provenance });
  const watched = { place: area, window: null };
  useLong.setState({ watched });
  await follow(mine, stilled, watched);
}

/** Where something is had already, what cannot be seen any more takes nothing of that away. */
async function seenNow(mine: Watch): Promise<Stilled | null> {
  try {
    return await sources[mine.way.source].still(mine.way);
  } catch (error) {
    if (!useLong.getState().progress) throw error;
    mine.amiss = true;
    const problem = `${messageOf(error)} Enter takes what was had.`;
    // What scrolls by itself goes on when it is seen again.
    if (!mine.stopped) useLong.setState({ problem });
    await pause(AGAIN);
    return null;
  }
}

function letGo(stilled: Stilled): void {
  stilled.letGo?.();
  stilled.picture.close();
}

/** So often something moved, and what it was could not be told. */
const RIDDLES = 4;
const UNTOLD =
  'Something moves, but how far cannot be told: it was too far, or its rows are alike.';

async function look(mine: Watch, stilled: Stilled): Promise<void> {
  const { watched } = useLong.getState();
  if (watched) return follow(mine, stilled, watched);
  const isFirst = mine.first === null;
  mine.first ??= stilled;
  const copy = await createImageBitmap(stilled.picture);
  // Another watch may have begun meanwhile, which is none of this one's.
  if (mine.stopped) return copy.close();
  const { part, moved } = await findScrolled(copy);
  if (isFirst && !mine.stopped) useLong.setState({ said: BEGIN });
  if (moved) mine.riddles += 1;
  if (mine.riddles === RIDDLES) useLong.setState({ problem: UNTOLD });
  if (part && !mine.stopped) await begin(mine, stilled, part);
  else mine.scroller.saw('same', null);
}

/** It is known what is scrolled: the window that holds it, or it alone. */
async function begin(mine: Watch, stilled: Stilled, part: Rect): Promise<void> {
  const watched = await thingToWatch(stilled, part);
  const { window } = watched;
  mine.title = window?.title ?? stilled.title;
  mine.provenance = {
    ...stilled.provenance,
    ...(window && { windowTitle: window.title, program: window.program || undefined }),
  };
  useLong.setState({ watched });
  const { first } = mine;
  if (first) {
    await follow(mine, first, watched);
    mine.first = null;
    letGo(first);
  }
  await follow(mine, stilled, watched);
}

/** Lays what is seen now where it belongs. */
async function follow(mine: Watch, stilled: Stilled, watched: Watched): Promise<void> {
  try {
    const { picture, place, isOwn, at } = await seenOf(stilled, watched);
    if (at.x !== watched.place.x || at.y !== watched.place.y) {
      useLong.setState({ watched: { ...watched, place: { ...watched.place, x: at.x, y: at.y } } });
    }
    mine.origin = { x: stilled.origin.x + at.x, y: stilled.origin.y + at.y };
    const part = visiblePart(place, picture);
    const copy = part && sameSize(mine, part) ? await createImageBitmap(picture) : null;
    if (isOwn) picture.close();
    if (!part || !copy)
      throw new Amiss('It has another size now, or is out of sight. Enter takes what was had.');
    if (mine.stopped) return copy.close();
    const { added, progress } = await addFrame(copy, part);
    if (mine.stopped) return;
    mine.until = stilled.provenance.takenAt;
    mine.still = isStill(added) ? mine.still + 1 : 0;
    const before = useLong.getState().progress?.pieces.length ?? 1;
    const said = wordsFor(added, progress, before);
    // What was amiss is over when it is seen again; other things, when it goes on.
    const isOver = mine.amiss || !isStill(added);
    mine.amiss = false;
    useLong.setState({ progress, ...(isOver && { problem: null }), ...(said && { said }) });
    if (added !== 'same' && added !== 'unclear') await showFilm(mine);
    mine.scroller.saw(added, progress);
    const names = describe(mine, progress);
    if (added !== 'unclear') mine.keeper.saw(framesIn(progress), names);
  } catch (error) {
    if (!(error instanceof Amiss)) throw error;
    mine.amiss = true;
    useLong.setState({ problem: error.message, scrolling: false });
  }
}

/** The first frame says how large all are. */
function sameSize(mine: Watch, { width, height }: Size): boolean {
  mine.size ??= { width, height };
  return mine.size.width === width && mine.size.height === height;
}

async function showFilm(mine: Watch): Promise<void> {
  const film = await filmOf(FILM, NARROWEST);
  if (mine.stopped) return film.forEach((picture) => picture.close());
  const old = useLong.getState().film;
  useLong.setState({ film });
  old.forEach((picture) => picture.close());
}

/** Lets it scroll, or stops that. */
export const toggleScrolling = (): void => watch?.scroller.toggle();

/** Nothing is watched any more, and nothing left behind. */
export function dropLong(): void {
  if (!watch) return;
  watch.stopped = true;
  watch.chosen?.(null);
  void watch.keeper.end();
  if (watch.first) letGo(watch.first);
  watch = null;
  forgetLong();
  // The worker lets go of all it holds.
  void beginStitch().catch(() => undefined);
}

/** Waits until what was just scrolled is painted; not for ever, since something may move on it. */
async function atRest(mine: Watch): Promise<void> {
  const latest = Date.now() + REST_WITHIN;
  while (mine.still < AT_REST && !mine.amiss && !mine.stopped && Date.now() < latest)
    await pause(SOON);
}

/**
 * What is had, each piece like a stilled picture: nothing where it was left meanwhile, or is being
 * taken already. @throws with words where there is nothing yet
 */
export async function takeLong(): Promise<Stilled[]> {
  const mine = watch;
  if (!mine?.provenance || !useLong.getState().progress)
    throw new Error('Nothing was scrolled yet. Scroll first, then press Enter.');
  if (mine.taking) return [];
  mine.taking = true;
  try {
    await atRest(mine);
    return await finished(mine);
  } finally {
    // Where it could not be finished it can be asked for again.
    mine.taking = false;
  }
}

async function finished(mine: Watch): Promise<Stilled[]> {
  const { progress } = useLong.getState();
  if (watch !== mine || !progress) return [];
  mine.stopped = true;
  const pictures = await finishStitch();
  if (watch !== mine) {
    pictures.forEach((picture) => picture.close());
    return [];
  }
  const names = describe(mine, progress);
  dropLong();
  return pictures.map((picture, i) => ({
    ...{ picture, origin: { x: 0, y: 0 }, windows: null, focused: null, pointer: null },
    ...names(i),
  }));
}

/** What each piece is called, and where it is from, as far as is seen now. */
function describe({ provenance, title, from, until }: Watch, { pieces }: Progress) {
  return (i: number): Pick<Stilled, 'title' | 'provenance'> => ({
    title: pieces.length > 1 ? `${title}, piece ${i + 1}` : title,
    provenance: {
      ...(provenance ?? { source: 'screen' }),
      ...{ takenAt: from, until, frames: pieces[i]?.frames },
    },
  });
}
