import { markSchema } from '@/core/marks/registry';
import { createHash } from 'node:crypto';
import { join } from 'node:path';
import { createCanvas } from '@napi-rs/canvas';
import { paintDesk } from '@/core/desk/build';
import { deskEvent, placeOf } from '@/core/desk/events';
import {
  createDesk,
  deskBounds,
  deskDisplays,
  frontWindow,
  windowTitles,
  type Desk,
} from '@/core/desk/model';
import type { ShotDocument } from '@/core/document/document';
import { DOCUMENT_VERSION } from '@/core/document/version';
import type { Shaper } from '@/core/drawing/shaper';
import type { Rect } from '@/core/geometry/rect';
import type { FolderInput } from '@/core/contracts/folder';
import { savedSearchInputSchema } from '@/core/contracts/search';
import { firstWay, routineInputSchema, type RoutineInput } from '@/core/contracts/way';
import { sql } from '../db/sql';
import { env } from '../base/env';
import { addFolder } from '../folders/folders';
import { keepCopy } from '../keep/copies';
import { plainPng } from '../formats/png';
import type { Pixels } from '../paint/flatten';
import { serverShaper } from '../paint/shaper';
import { addRoutine, listRoutines } from '../routines/routines';
import { addSearch } from '../search/saved';
import { storeShot } from '../shots/store';
import { setTags } from '../tags/tags';
import { longRegister } from './longPage';
import { fillClips } from './clips';
import { fillGuides } from './guides';
import { fillSeries } from './series';
import { demoShots, type DemoShot } from './shots';
import { practicePage, type Pictured } from './webPage';

/** An id that is the same on every start, so that a fill that was cut short goes on where it was. */
function fixedId(name: string): string {
  const h = createHash('sha256').update(`rezzik demo ${name}`).digest('hex');
  return `${h.slice(0, 8)}-${h.slice(8, 12)}-4${h.slice(13, 16)}-8${h.slice(17, 20)}-${h.slice(20, 32)}`;
}

/** Each for another use, by rules of its own. */
const folders: Omit<FolderInput, 'path'>[] = [
  { name: 'Guides', format: 'png', pattern: '{title}-{n:3}' },
  {
    name: 'Faults',
    format: 'jpeg',
    maxBytes: 60_000,
    pattern: 'fault {date} {time}',
  },
  {
    name: 'Records',
    format: 'tiff',
    facts: { words: true, origin: true },
    pattern: '{date:yyyy-MM}/{date} {window}',
  },
  {
    name: 'Web',
    format: 'webp',
    size: { longest: 640 },
    pattern: '{title:lower,-}-{size}',
  },
];

const searches = [
  { name: 'Faults this month', query: 'tag:Faults since:"last 31 days"' },
  { name: 'Orders not kept', query: 'order kept:none' },
  { name: 'Beds, no arrow yet', query: 'tag:Beds -with:arrow' },
  { name: 'Sensor is silent', query: '"not responding" sensor ' },
];

const MINUTE = 60_000;
const DAY = 1440 * MINUTE;

/** Ways of taking for the garden's work. */
const routines: RoutineInput[] = [
  {
    name: 'Slip for the shop',
    key: 'f1',
    way: { ...firstWay, kind: 'window', inUse: true, then: [{ do: 'copy' }] },
  },
  { name: 'Guide step', key: 'f2', way: { ...firstWay, kind: 'region', delay: 3, pointer: true } },
  {
    name: 'Weekly beds',
    key: 'f4',
    way: { ...firstWay, kind: 'repeat', then: [{ do: 'keep', folderId: null }] },
  },
];

/** Fills an empty database with the garden's work of three weeks, through the app's own code. */
export async function fillDemo(now = new Date()): Promise<void> {
  const [done] = await sql()`select 1 from shots where id = ${fixedId('last')}`;
  const [touched] = await sql()`select 1 from shots limit 1`;
  const [begun] = await sql()`select 1 from folders where id = ${fixedId('Guides')}`;
  if (done || (touched && !begun)) return;
  for (const folder of folders) {
    const [there] = await sql()`select 1 from folders where id = ${fixedId(folder.name)}`;
    if (there) continue;
    const path = join(env().dataDir, 'kept', folder.name);
    await addFolder(
      { ...folder, path, make: true, isDefault: folder.name === 'Guides' },
      fixedId(folder.name),
    );
  }
  if ((await listRoutines()).length === 0) {
    for (const routine of routines) await addRoutine(routineInputSchema.parse(routine));
  }
  for (const search of searches) {
    const [there] = await sql()`select 1 from searches where id = ${fixedId(search.name)}`;
    if (!there) await addSearch(savedSearchInputSchema.parse(search), fixedId(search.name));
  }
  const total = demoShots.length;
  for (const [i, shot] of demoShots.entries()) {
    const id = fixedId(i === total - 1 ? 'last' : `shot ${i}`);
    const [there] = await sql()`select 1 from shots where id = ${id}`;
    if (!there) await storeDemoShot(id, shot, i, now);
  }
  await fillGuides(fixedId('Guides'));
  await fillSeries(fixedId('series'), now);
  await fillClips(fixedId, now);
}

async function storeDemoShot(id: string, shot: DemoShot, index: number, now: Date): Promise<void> {
  const at = takenAt(shot, now);
  const pictured =
    shot.page === undefined ? await onDesk(shot, at, index) : await practicePage(shot.page, at);
  if (!pictured) return;
  const { width, height, picture, provenance } = pictured;
  const document: ShotDocument = {
    version: DOCUMENT_VERSION,
    view: { crop: shot.crop ?? { x: 0, y: 0, width, height } },
    ...(shot.finish && { finish: shot.finish }),
    ...(shot.description && { description: shot.description }),
    marks: (shot.marks ?? []).map((mark) => markSchema.parse(mark)),
  };
  await storeShot({ id, title: shot.title, picture, document, provenance });
  if (shot.tags) await setTags(id, shot.tags);
  for (const name of shot.keep ?? []) await keepCopy(id, { folderId: fixedId(name) });
  const folderId = fixedId('Guides');
  for (const format of shot.also ?? []) await keepCopy(id, { folderId, format });
}

/** What the shot shows of the desk. */
async function onDesk(shot: DemoShot, at: Date, index: number): Promise<Pictured> {
  const desk = arrange(shot, at.getTime(), index);
  const display = deskDisplays.find((d) => d.name === shot.display);
  const shaper = await serverShaper();
  const long = shot.long ? await longRegister(desk, shaper) : null;
  const pixels = long ?? painted(desk, display?.bounds ?? deskBounds, shaper);
  return {
    picture: await plainPng(pixels),
    ...{ width: pixels.width, height: pixels.height },
    provenance: {
      source: 'desk',
      takenAt: at.toISOString(),
      display: display?.name ?? 'Both displays',
      windowTitle: long ? windowTitles.register : frontWindow(desk, display)?.title,
      ...(long && { frames: long.frames, until: at.toISOString() }),
    },
  };
}

/** A part of the desk; only the whole of it has corners where nothing is. */
function painted(desk: Desk, part: Rect, shaper: Shaper): Pixels {
  const surface = createCanvas(part.width, part.height).getContext('2d');
  paintDesk(surface, desk, shaper, part);
  const { data } = surface.getImageData(0, 0, part.width, part.height);
  return { data, width: part.width, height: part.height, opaque: part !== deskBounds };
}

/** So many days back, at the shot's time of day; never in the future. */
function takenAt(shot: DemoShot, now: Date): Date {
  const [hour = 9, minute = 0] = shot.time.split(':').map(Number);
  const day = new Date(now.getTime() - shot.daysAgo * DAY);
  day.setHours(hour, minute, (hour * 7 + minute) % 60, 0);
  return day > now ? new Date(now.getTime() - (24 - hour) * MINUTE) : day;
}

/** A desk on which the shot's clicks were made. */
function arrange(shot: DemoShot, at: number, index: number): Desk {
  let desk = createDesk(index, at, -new Date(at).getTimezoneOffset());
  for (const [act, target] of shot.clicks ?? []) {
    const place = placeOf(desk, target);
    if (!place) continue;
    desk = deskEvent(desk, { type: 'move', at: place });
    if (act === 'click') {
      desk = deskEvent(deskEvent(desk, { type: 'press', at: place }), { type: 'release' });
    }
    if (act === 'rest') desk = deskEvent(desk, { type: 'tick', now: desk.now + 900 });
  }
  return shot.clicks?.length ? desk : deskEvent(desk, { type: 'leave' });
}
