import type { Clip } from '@/core/contracts/clip';
import { freeNumber, joinedSetups } from '@/core/clip/avcSetup';
import { filmHead, pictureHead, type PackedKind } from '@/core/clip/matroska';
import { MatroskaPictures } from '@/core/clip/matroskaPictures';
import { keptPictures } from '@/core/clip/played';
import type { Piece } from '@/core/clip/takenOver';
import { asFilm, ffmpegOutput } from '../media/ffmpeg';
import { coloursOf } from '../media/probe';
import type { Film } from './rows';

/** Beyond the key picture that is meant, before the next one, seconds. */
const INSIDE = 0.001;
const PATIENCE = 600_000;
/** What is packed anew is held until it is written; of more than this all is, bytes. */
const MOST_HELD = 256_000_000;

/** A film of which much is taken over as it was recorded, and the rest packed like it. */
export interface TakenOver {
  film: Film;
  packed: PackedKind;
  pieces: readonly Piece[];
  keys: ReadonlySet<number>;
}

/** From a picture that can be begun with on; what is sought a little later comes as much later. */
const fromKey = ({ path, times }: Film, key: number): string[] =>
  key === 0
    ? asFilm(path)
    : [
        '-itsoffset',
        String(INSIDE),
        '-ss',
        ((times[key] ?? 0) + INSIDE).toFixed(6),
        ...asFilm(path),
      ];

const HANDED_ON = ['-f', 'matroska', 'pipe:1'];

function asRecordedArgs({ film }: TakenOver, { from, to }: Piece): string[] {
  const pictures = ['-map', '0:v:0', '-c:v', 'copy', '-frames:v', String(to - from)];
  return [...fromKey(film, from), ...pictures, ...HANDED_ON];
}

/** Little of it is lost, in the order in which it is seen. @param number of its sets of parameters */
const packing = {
  h264: (number: number) => [
    ...['-c:v', 'libx264', '-preset', 'ultrafast', '-crf', '12', '-bf', '0'],
    ...['-x264-params', `sps-id=${number}`],
  ],
  vp9: () => [
    ...['-c:v', 'libvpx-vp9', '-crf', '12', '-b:v', '0', '-deadline', 'realtime'],
    ...['-cpu-used', '6', '-row-mt', '1', '-lag-in-frames', '0', '-auto-alt-ref', '0'],
  ],
} as const;
const isPackedHere = (packed: PackedKind): packed is keyof typeof packing => packed in packing;

/** What is packed anew, from one picture that can be begun with. @param packed how that is done */
function anewArgs({ film, keys }: TakenOver, { from, to }: Piece, packed: string[]): string[] {
  let key = from;
  while (key > 0 && !keys.has(key)) key -= 1;
  const graph = `[0:v:0]trim=start_frame=${from - key}:end_frame=${to - key}[k]`;
  return [
    ...['-noaccurate_seek', ...fromKey(film, key), '-filter_complex', graph, '-map', '[k]'],
    ...['-fps_mode', 'passthrough', '-enc_time_base:v', '1:1000', ...packed],
    ...['-g', String(to - from), ...HANDED_ON],
  ];
}

/** Pictures of a film, packed. */
interface Packed {
  setup: Uint8Array | null;
  pictures: Uint8Array[];
}

const bytesOf = ({ pictures }: Packed): number =>
  pictures.reduce((sum, { length }) => sum + length, 0);

/** @param room bytes that may be held of it. @returns null where it takes more */
async function packedAs(args: string[], room: number, signal: AbortSignal): Promise<Packed | null> {
  const reader = new MatroskaPictures();
  const pictures: Uint8Array[] = [];
  let bytes = 0;
  for await (const piece of ffmpegOutput(args, { most: PATIENCE, signal })) {
    bytes += piece.length;
    if (bytes > room) return null;
    pictures.push(...reader.read(piece));
  }
  return { setup: reader.setup, pictures };
}

/** What is known of how the film itself is packed. */
async function setupOf(taken: TakenOver, signal: AbortSignal): Promise<Uint8Array | null> {
  const first = { from: 0, to: 1, asRecorded: true };
  return (await packedAs(asRecordedArgs(taken, first), MOST_HELD, signal))?.setup ?? null;
}

/** What lies before each key picture, packed like the rest, so that one film can be made of both. */
export interface Parts {
  setup: Uint8Array | null;
  anew: ReadonlyMap<Piece, Packed>;
}

/** Every picture of VP9 that can be begun with says all about itself. */
const needsSetup = ({ packed }: TakenOver): boolean => packed !== 'vp9';

/** How what is packed anew is packed like the rest. @returns null where that cannot be done */
async function likeRest(
  { film, packed }: TakenOver,
  setup: Uint8Array | null,
  signal: AbortSignal,
): Promise<string[] | null> {
  const number = setup ? freeNumber(setup) : 0;
  const { format } = await coloursOf(film.path, signal);
  const isAlike = number !== null && isPackedHere(packed) && /^yuvj?4(20|44)p$/.test(format);
  return isAlike ? [...packing[packed](number), '-pix_fmt', format] : null;
}

/** @returns null where it cannot be made one film */
export async function partsOf(taken: TakenOver, signal: AbortSignal): Promise<Parts | null> {
  const setup = needsSetup(taken) ? await setupOf(taken, signal) : null;
  const anew = new Map<Piece, Packed>();
  const pieces = taken.pieces.filter(({ asRecorded }) => !asRecorded);
  if (pieces.length === 0) return { setup, anew };
  const like = await likeRest(taken, setup, signal);
  if (!like) return null;
  let room = MOST_HELD;
  for (const piece of pieces) {
    const packed = await packedAs(anewArgs(taken, piece, like), room, signal);
    if (packed?.pictures.length !== piece.to - piece.from) return null;
    room -= bytesOf(packed);
    anew.set(piece, packed);
  }
  if (!needsSetup(taken)) return { setup: null, anew };
  const setups = [setup, ...[...anew.values()].map((one) => one.setup)];
  const known = setups.filter((one) => one !== null);
  const all = known.length === setups.length ? joinedSetups(known) : null;
  return all && { setup: all, anew };
}

async function* picturesOf(
  taken: TakenOver,
  { anew }: Parts,
  piece: Piece,
  signal: AbortSignal,
): AsyncGenerator<Uint8Array> {
  const packed = anew.get(piece);
  if (packed) return yield* packed.pictures;
  const reader = new MatroskaPictures();
  const args = asRecordedArgs(taken, piece);
  for await (const read of ffmpegOutput(args, { most: PATIENCE, signal })) yield* reader.read(read);
}

/** All of it, as core/clip/matroska.ts says. */
export async function* joinedFilm(
  taken: TakenOver,
  parts: Parts,
  { cuts }: Pick<Clip, 'cuts'>,
  signal: AbortSignal,
): AsyncGenerator<Uint8Array> {
  const { film, packed, pieces, keys } = taken;
  const when = keptPictures(cuts, film.times).values();
  yield filmHead(film, { packed, setup: parts.setup });
  for (const piece of pieces) {
    const begins = parts.anew.has(piece) ? new Set([piece.from]) : keys;
    for await (const picture of picturesOf(taken, parts, piece, signal)) {
      const next = when.next().value;
      if (!next) return;
      const isKey = begins.has(next.picture);
      yield pictureHead({ ...next, length: picture.length, isKey });
      yield picture;
    }
  }
}
