import type { Recording } from '@/core/contracts/clip';
import { ApiError } from '../../api/ask';
import { api } from '../../api/client';

/** Pauses before a piece is sent once more, ms; the last one is repeated. */
const PAUSES = [500, 1_000, 2_000, 5_000];
/** So much may wait in memory while the server is away, bytes. */
const MOST_WAITING = 600_000_000;

const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** How things stand: null where the server does not answer. */
export type Stands = Pick<Recording, 'bytes' | 'room'> | null;

/** Sends what is recorded, piece by piece in order, until the server has it on its disk. */
export class Pieces {
  #waiting: Blob[] = [];
  #sent = 0;
  #waitingBytes = 0;
  #sending: Promise<void> | null = null;

  constructor(
    private readonly id: string,
    private readonly heard: (state: Stands) => void,
    /** Hears that nothing more can be taken, in words. */
    private readonly failed: (why: string) => void,
  ) {}

  get count(): number {
    return this.#sent + this.#waiting.length;
  }

  add(piece: Blob): void {
    if (piece.size === 0) return;
    this.#waiting.push(piece);
    this.#waitingBytes += piece.size;
    if (this.#waitingBytes > MOST_WAITING)
      this.failed('Rezzik’s server does not answer, and no more can be held here.');
    this.#sending ??= this.#send().finally(() => (this.#sending = null));
  }

  /** All that was added is on the server's disk. @throws when it cannot be */
  async settled(): Promise<void> {
    while (this.#waiting.length > 0) {
      this.#sending ??= this.#send().finally(() => (this.#sending = null));
      await this.#sending;
    }
  }

  async #send(): Promise<void> {
    for (let tries = 0; ;) {
      const [piece] = this.#waiting;
      if (!piece) return;
      try {
        const stands = await api.addClipPiece(this.id, this.#sent, await piece.arrayBuffer());
        this.#waiting.shift();
        this.#waitingBytes -= piece.size;
        this.#sent += 1;
        tries = 0;
        this.heard(stands);
      } catch (error) {
        if (!isPassing(error)) {
          this.#waiting = [];
          return this.failed(error instanceof Error ? error.message : String(error));
        }
        this.heard(null);
        await pause(PAUSES[Math.min(tries, PAUSES.length - 1)] ?? 0);
        tries += 1;
      }
    }
  }
}

/** The server is away or has its hands full; a full disk is for good. */
const isPassing = (error: unknown): boolean =>
  error instanceof ApiError && (error.status === 0 || error.status === 503 || error.status === 500);
