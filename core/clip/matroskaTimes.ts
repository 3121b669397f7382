import { whole } from './ebml';
import { joined } from './matroska';

/** Elements of Matroska by their ids (RFC 9559, §5.1). */
const SCALE = 0x2ad7b1;
const TRACK = 0xae;
const TRACK_NUMBER = 0xd7;
const TRACK_TYPE = 0x83;
const CLUSTER_TIME = 0xe7;
const BLOCKS = [0xa3, 0xa1];
/** Segment, Info, Tracks, TrackEntry, Cluster, BlockGroup. */
const LOOKED_INTO = new Set([0x18538067, 0x1549a966, 0x1654ae6b, TRACK, 0x1f43b675, 0xa0]);
const READ = new Set([SCALE, TRACK_NUMBER, TRACK_TYPE, CLUSTER_TIME, ...BLOCKS]);
/** What a file of Matroska begins with (RFC 8794, §11.2.1). */
const EBML = [0x1a, 0x45, 0xdf, 0xa3];

/** Of an element that is read, its first bytes are enough: a number, or the head of a block. */
const ENOUGH = 12;
/**
 * More than a clip has: sixty thousand pictures, their sound, a few elements each. A file that holds
 * more of them lies, and would keep whoever reads it busy.
 */
const MOST = 1_000_000;
/** The kind of a track that shows pictures. */
const PICTURES = 1;

export const isMatroska = (bytes: Uint8Array): boolean => EBML.every((one, i) => bytes[i] === one);

const numberOf = (bytes: Uint8Array): number => bytes.reduce((sum, byte) => 256 * sum + byte, 0);

/**
 * When the pictures of a film in Matroska come, read as it is written: of none more than a few bytes
 * are held. Its first track of pictures is the one that is read, as whoever plays it does. Beyond a
 * million elements nothing is read.
 */
export class MatroskaTimes {
  private rest: Uint8Array = new Uint8Array();
  /** Bytes to come that nobody wants. */
  private skipped = 0;
  /** Nanoseconds. */
  private scale = 1_000_000;
  private track: { number?: number; kind?: number } = {};
  private shows: number | null = null;
  private cluster = 0;
  private left = MOST;
  private readonly came: number[] = [];

  /** In the order in which they stand in the film, seconds. */
  get times(): readonly number[] {
    return this.came;
  }

  /** @param piece what comes next */
  read(piece: Uint8Array): void {
    if (this.left <= 0) return;
    const wanted = piece.subarray(Math.min(this.skipped, piece.length));
    this.skipped -= piece.length - wanted.length;
    this.rest = this.rest.length === 0 ? wanted : joined([this.rest, wanted]);
    for (let to = this.next(); to !== null && this.left > 0; to = this.next()) {
      this.left -= 1;
      this.skipped = Math.max(0, to - this.rest.length);
      this.rest = this.rest.subarray(to);
    }
    // What is handed in may be written over.
    this.rest = this.rest.slice();
  }

  /** Reads one element. @returns where the next one begins, or null where this one has not come */
  private next(): number | null {
    const id = whole(this.rest, 0, true);
    const length = id && whole(this.rest, id.end, false);
    if (!id || !length) return null;
    if (LOOKED_INTO.has(id.value)) {
      if (id.value === TRACK) this.track = {};
      return length.end;
    }
    if (READ.has(id.value)) {
      const to = length.end + Math.min(length.value, ENOUGH);
      if (to > this.rest.length) return null;
      this.take(id.value, this.rest.subarray(length.end, to));
    }
    return length.end + length.value;
  }

  private take(id: number, content: Uint8Array): void {
    if (BLOCKS.includes(id)) this.takeBlock(content);
    else if (id === SCALE) this.scale = numberOf(content);
    else if (id === CLUSTER_TIME) this.cluster = numberOf(content);
    else {
      const { track } = this;
      if (id === TRACK_NUMBER) track.number = numberOf(content);
      else track.kind = numberOf(content);
      if (track.kind === PICTURES) this.shows ??= track.number ?? null;
    }
  }

  /** The number of its track, then two bytes: how much later than its cluster it comes, or sooner. */
  private takeBlock(content: Uint8Array): void {
    const track = whole(content, 0, false);
    if (!track || track.value !== this.shows || track.end + 2 > content.length) return;
    const late = new DataView(content.buffer, content.byteOffset + track.end).getInt16(0);
    this.came.push(((this.cluster + late) * this.scale) / 1e9);
  }
}
