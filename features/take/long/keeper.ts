import type { Stilled } from '../sources/contract';
import { encodeFrame } from '../../pictures/pictures';
import { copyStitch } from '../../pictures/stitch';
import { forgetHeld, holdLong, watchedHere } from './held';

/** What is new is put aside so often, ms; less often where that takes long. */
const OFTEN = 4_000;
const SHARE = 10;

/** Puts what is had of a long page aside while it is watched, so that it outlives its tab. */
export class Keeper {
  readonly id = crypto.randomUUID();
  readonly #letGo = watchedHere(this.id);
  #next = Date.now() + OFTEN;
  #busy: Promise<void> = Promise.resolve();
  #frames = 0;
  #over = false;

  /** @param of what the pieces are, one for each */
  saw(frames: number, of: (piece: number) => Pick<Stilled, 'title' | 'provenance'>): void {
    if (frames === this.#frames || frames < 2 || Date.now() < this.#next || this.#over) return;
    this.#next = Infinity;
    this.#frames = frames;
    const began = Date.now();
    // Where there is no room for it, it is watched all the same.
    this.#busy = this.#put(of)
      .catch(() => undefined)
      .then(() => {
        this.#next = Date.now() + Math.max(OFTEN, SHARE * (Date.now() - began));
      });
  }

  async #put(of: (piece: number) => Pick<Stilled, 'title' | 'provenance'>): Promise<void> {
    const pictures = await copyStitch();
    const pieces = [];
    for (const [i, picture] of pictures.entries()) {
      const { width, height } = picture;
      const png = this.#over ? null : await encodeFrame(picture);
      picture.close();
      const { title, provenance } = of(i);
      if (png) pieces.push({ bytes: await png.arrayBuffer(), width, height, title, provenance });
    }
    if (!this.#over && pieces.length > 0) await holdLong({ id: this.id, pieces });
  }

  /** It was taken, or is not wanted. */
  async end(): Promise<void> {
    this.#over = true;
    await this.#busy;
    await forgetHeld(this.id).catch(() => undefined);
    this.#letGo();
  }
}
