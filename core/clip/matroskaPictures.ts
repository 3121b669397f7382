import { whole } from './ebml';
import { joined } from './matroska';

/** What is looked into, by the ids of RFC 9559: Segment, Cluster, Tracks, TrackEntry, BlockGroup. */
const LOOKED_INTO = new Set([0x18538067, 0x1f43b675, 0x1654ae6b, 0xae, 0xa0]);
/** What is read. */
const CODEC_PRIVATE = 0x63a2;
const BLOCKS = new Set([0xa3, 0xa1]);
/** Before what is in a block: time and flags, after the number of its track. */
const BLOCK_HEAD = 3;

/**
 * Reads the pictures of a film of one track, packed as they are, out of Matroska (RFC 9559) as it
 * comes. One picture a block, in the order in which they come.
 */
export class MatroskaPictures {
  /** What whoever unpacks them must know first; null where there is nothing, or it did not come yet. */
  setup: Uint8Array | null = null;
  private rest: Uint8Array = new Uint8Array();

  /** @param piece what comes next. @returns those pictures that are whole with it */
  read(piece: Uint8Array): Uint8Array[] {
    this.rest = this.rest.length === 0 ? piece : joined([this.rest, piece]);
    const pictures: Uint8Array[] = [];
    let at = 0;
    for (let next = this.element(at); next !== null; next = this.element(at)) {
      const { id, from, to } = next;
      if (id === CODEC_PRIVATE) this.setup = this.rest.slice(from, to);
      if (BLOCKS.has(id)) {
        const track = whole(this.rest, from, false)?.end ?? from;
        pictures.push(this.rest.slice(track + BLOCK_HEAD, to));
      }
      at = to;
    }
    this.rest = this.rest.subarray(at);
    return pictures;
  }

  /** The next one; of what is looked into, its head alone. @returns null where it has not come whole */
  private element(at: number): { id: number; from: number; to: number } | null {
    const id = whole(this.rest, at, true);
    const length = id && whole(this.rest, id.end, false);
    if (!id || !length) return null;
    const to = LOOKED_INTO.has(id.value) ? length.end : length.end + length.value;
    return to <= this.rest.length ? { id: id.value, from: length.end, to } : null;
  }
}
