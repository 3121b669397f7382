import { transfer } from 'comlink';
import type { HeldWorker } from '@/workers/held.worker';
import { workerOf } from '../../../pictures/startWorker';
import type { Holder } from '../contract';
import { GONE } from '../held';

const ask = workerOf<HeldWorker>(
  () => new Worker(new URL('../../../../workers/held.worker.ts', import.meta.url)),
);

/** Of MediaStreamTrack Insertable Media Processing (W3C), which not every browser has in a page. */
interface Processor {
  readable: ReadableStream<VideoFrame>;
}
type ProcessorMaker = new (init: { track: MediaStreamTrack; maxBufferSize: number }) => Processor;

const processorMaker = (): ProcessorMaker | undefined =>
  (window as Window & { MediaStreamTrackProcessor?: ProcessorMaker }).MediaStreamTrackProcessor;

/** True where this browser hands out the frames of what is shared. */
export const canHold = (): boolean => processorMaker() !== undefined;

/** Its own copy of the track: another one that reads the same track would take frames away. */
let own: MediaStreamTrack | null = null;

/** @throws with words when it is gone */
export async function heldPicture(id: number, width?: number): Promise<ImageBitmap> {
  const picture = await ask((worker) => worker.picture(id, width));
  if (!picture) throw new Error(GONE);
  return picture;
}

/** Holds the last seconds of a shared screen, in a worker, which goes on while the page is hidden. */
export const holderOf = (shared: () => MediaStreamTrack | null): Holder => ({
  begin: (most, ended) => {
    const Maker = processorMaker();
    const track = shared()?.clone();
    if (!Maker || !track)
      return Promise.reject(new Error('Nothing is shared. Share a screen first.'));
    own?.stop();
    own = track;
    const frames = new Maker({ track, maxBufferSize: 2 }).readable;
    const over = () => own === track && ended('Sharing has ended, and with it what was held.');
    void ask((worker) => worker.hold(transfer(frames, [frames]), most)).then(over, over);
    return Promise.resolve();
  },
  end: () => {
    if (!own) return;
    own.stop();
    own = null;
    void ask((worker) => worker.end());
  },
  facts: () => ask((worker) => worker.facts()),
  moments: () => ask((worker) => worker.moments()),
  goOn: () => void ask((worker) => worker.goOn()),
  look: heldPicture,
});
