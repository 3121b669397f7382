import { createCanvas } from '@napi-rs/canvas';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { setTimeout as pause } from 'node:timers/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { deskPointer, paintDesk } from '@/core/desk/build';
import { deskEvent, placeOf } from '@/core/desk/events';
import { createDesk, deskBounds, deskDisplays, type Desk } from '@/core/desk/model';
import type { Point } from '@/core/geometry/point';
import type { Rect } from '@/core/geometry/rect';
import { markSchema, type MarkInput } from '@/core/marks/registry';
import { paintPointer } from '@/core/marks/piece/shapes';
import { Fault } from '../base/fault';
import { sql } from '../db/sql';
import { colourArgs } from '../clips/written';
import { addPiece, beginRecording, endRecording } from '../clips/recordings';
import { ffmpeg } from '../media/ffmpeg';
import { changeShot } from '../shots/change';
import { getShot } from '../shots/rows';
import { serverShaper } from '../paint/shaper';
import { setTags } from '../tags/tags';

/** Pictures a second. */
const RATE = 12;
/** Pictures that the pointer takes to a place, and stays there. */
const WAY = 14;
const STAY = 8;
const PATIENCE = 120_000;

interface DemoClip {
  title: string;
  display: 'Left' | 'Right';
  tag: string;
  daysAgo: number;
  /** What the pointer goes to and presses, one after the other. */
  presses: readonly string[];
  marks?: readonly MarkInput[];
}

const demoClips: readonly DemoClip[] = [
  {
    ...{ title: 'Ordering seeds', display: 'Left', tag: 'Seeds', daysAgo: 2 },
    presses: ['window:register', 'row:3', 'window:exchange', 'slip'],
  },
  {
    ...{ title: 'A sensor fails', display: 'Right', tag: 'Faults', daysAgo: 1 },
    presses: ['title:map', 'window:notes', 'window:sensors'],
    marks: [
      { id: 'order', name: 'Order number', kind: 'blocks', x: 282, y: 866, width: 164, height: 34 },
      {
        ...{ id: 'sensor', kind: 'arrow', from: { x: 1120, y: 470 }, to: { x: 880, y: 396 } },
        ...{ bend: null, colour: '#D55E00', thickness: 10, heads: 'end', dashed: false },
        ...{ headShape: 'solid', taper: false, time: { from: 22, to: 66 } },
      },
    ],
  },
];

const boundsOf = ({ display }: DemoClip): Rect =>
  deskDisplays.find(({ name }) => name === display)?.bounds ?? deskBounds;

/** The desk, picture by picture, while the pointer goes about its work. */
function* deskOf(clip: DemoClip, at: number): Generator<Desk> {
  let desk = createDesk(clip.presses.length, at, 0);
  const { x, y } = boundsOf(clip);
  let from: Point = { x: x + 500, y: y + 780 };
  for (const target of clip.presses) {
    const to = placeOf(desk, target);
    if (!to) continue;
    for (let i = 1; i <= WAY; i += 1) {
      const part = i / WAY;
      const place = { x: from.x + (to.x - from.x) * part, y: from.y + (to.y - from.y) * part };
      desk = deskEvent(desk, { type: 'move', at: place });
      yield desk;
    }
    desk = deskEvent(deskEvent(desk, { type: 'press', at: to }), { type: 'release' });
    for (let i = 0; i < STAY; i += 1) {
      desk = deskEvent(desk, { type: 'tick', now: desk.now + 1000 / RATE });
      yield desk;
    }
    from = to;
  }
}

async function* painted(clip: DemoClip, at: number): AsyncGenerator<Uint8Array> {
  const shaper = await serverShaper();
  const part = boundsOf(clip);
  const { width, height } = part;
  const surface = createCanvas(width, height).getContext('2d');
  for (const desk of deskOf(clip, at)) {
    paintDesk(surface, desk, shaper, part);
    const pointer = deskPointer(desk);
    if (pointer) {
      const { x, y } = pointer.at;
      paintPointer(surface, pointer.shape, { x: x - part.x, y: y - part.y }, 1);
    }
    yield new Uint8Array(surface.getImageData(0, 0, width, height).data);
  }
}

/** As a browser would have recorded it. */
async function filmed(clip: DemoClip, at: number): Promise<Uint8Array> {
  const folder = await mkdtemp(join(tmpdir(), 'rezzik-film-'));
  const path = join(folder, 'film.mkv');
  const { width, height } = boundsOf(clip);
  const raw = ['-f', 'rawvideo', '-pix_fmt', 'rgba', '-s', `${width}x${height}`];
  const packed = [
    ...['-vf', 'scale=out_color_matrix=bt709:out_range=tv', '-pix_fmt', 'yuv420p'],
    ...['-c:v', 'libx264', '-preset', 'veryfast', '-bf', '0', '-crf', '16'],
    ...colourArgs('bt709'),
  ];
  try {
    await ffmpeg([...raw, '-r', String(RATE), '-i', 'pipe:0', ...packed, '-g', '24', '-y', path], {
      ...{ most: PATIENCE, inputs: [painted(clip, at)] },
    });
    return await readFile(path);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** What lies on a clip, as soon as it is one. */
async function mark(id: string, marks: readonly MarkInput[]): Promise<void> {
  for (const until = Date.now() + PATIENCE; Date.now() < until; await pause(100)) {
    const [there] = await sql()`select 1 from clips where shot_id = ${id}`;
    if (!there) continue;
    const { revision, document } = await getShot(id);
    const drawn = marks.map((one) => markSchema.parse(one));
    await changeShot(id, { revision, document: { ...document, marks: drawn } });
    return;
  }
}

/** Two clips of the practice desk; none where films cannot be made yet. */
export async function fillClips(idOf: (name: string) => string, now: Date): Promise<void> {
  for (const clip of demoClips) {
    const id = idOf(`clip ${clip.title}`);
    const [there] = await sql()`select 1 from shots where id = ${id}`;
    if (there) continue;
    const at = new Date(now.getTime() - clip.daysAgo * 86_400_000);
    const film = await filmed(clip, at.getTime()).catch((error: unknown) => {
      if (error instanceof Fault && error.code === 'no-ffmpeg') return null;
      throw error;
    });
    if (!film) return;
    await beginRecording({
      ...{ id, title: clip.title, type: 'video/x-matroska' },
      provenance: { source: 'desk', takenAt: at.toISOString(), display: clip.display },
    });
    await addPiece(id, 0, film);
    await endRecording(id, { pieces: 1, bin: false });
    await setTags(id, [clip.tag]);
    if (clip.marks) await mark(id, clip.marks);
  }
}
