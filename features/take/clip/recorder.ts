import type { Shown } from '@/core/take/shownPart';
import type { RecordedType } from '@/core/contracts/clip';
import { ApiError } from '../../api/ask';
import { api } from '../../api/client';
import type { Filmed, FilmedThere, ShownThere } from '../sources/contract';
import { Pieces, type Stands } from './pieces';

/** A piece comes so often, ms: what a crash can take with it. */
const PIECE = 1_000;
/** Pictures that can be gone to, every so often, ms. */
const KEY_EVERY = 2_000;
/** Bits that a pixel of a picture has on average: coloured words stay clear. */
const BITS_A_PIXEL = 0.45;
const RATE = 15;
/** A second, of two channels. */
const SOUND_BITS = 128_000;

/** What is heard of a recording while it goes on. */
export interface Hearer {
  /** How things stand. */
  stands: (told: Stands) => void;
  /** How far it is, as whoever records it says: another page may have paused it. */
  isAt: (seconds: number, paused: boolean) => void;
  /** It is over by itself, in words. */
  over: (why: string) => void;
}

/** Records, wherever that is done. */
export interface Recorder {
  /** It ends with this page. */
  inPage: boolean;
  /** @throws where that cannot be told */
  pause: (paused: boolean) => Promise<void>;
  /** Ends it. @returns how many pieces were sent from here, all of them on the disk */
  end: () => Promise<number>;
}

/** The most frugal first. */
const wishes: readonly { mime: string; type: RecordedType }[] = [
  { mime: 'video/webm;codecs=avc1', type: 'video/x-matroska' },
  { mime: 'video/webm;codecs=vp9', type: 'video/webm' },
  { mime: 'video/webm;codecs=vp8', type: 'video/webm' },
  { mime: 'video/webm', type: 'video/webm' },
  { mime: 'video/mp4', type: 'video/mp4' },
];

type Options = MediaRecorderOptions & { videoKeyFrameIntervalDuration?: number };

/** Of a wish that names how pictures are packed, how the sound is, too. */
const withSound = (mime: string, sound: boolean): string =>
  sound && mime.includes('codecs=') ? `${mime},opus` : mime;

function mediaRecorder(stream: MediaStream): { recorder: MediaRecorder; type: RecordedType } {
  if (!('MediaRecorder' in window)) throw new Error('This browser records nothing.');
  const sound = stream.getAudioTracks().length > 0;
  const wish = wishes
    .map(({ mime, type }) => ({ mime: withSound(mime, sound), type }))
    .find(({ mime }) => MediaRecorder.isTypeSupported(mime));
  if (!wish) throw new Error('This browser records nothing. Another one may.');
  const { width = 1920, height = 1080 } = stream.getVideoTracks()[0]?.getSettings() ?? {};
  const options: Options = {
    mimeType: wish.mime,
    videoBitsPerSecond: Math.round(Math.max(2e6, width * height * RATE * BITS_A_PIXEL)),
    videoKeyFrameIntervalDuration: KEY_EVERY,
    audioBitsPerSecond: SOUND_BITS,
  };
  return { recorder: new MediaRecorder(stream, options), type: wish.type };
}

/** The last piece is there. */
const stopped = (recorder: MediaRecorder): Promise<void> =>
  new Promise((resolve) => {
    if (recorder.state === 'inactive') return resolve();
    recorder.addEventListener('stop', () => resolve(), { once: true });
    recorder.stop();
  });

/** The server is told so often that it goes on, strokes of the clock. */
const TELL = 8;

/**
 * Tells, also while it pauses or nothing moves. Timers of a page out of sight come once a minute,
 * those of a worker do not. @returns how to stop
 */
function goesOn(id: string): () => void {
  const clock = new Worker(new URL('../../../workers/clock.worker.ts', import.meta.url));
  let strokes = 0;
  clock.onmessage = () => {
    strokes += 1;
    if (strokes % TELL === 0) void api.clipGoesOn(id).catch(() => undefined);
  };
  return () => clock.terminate();
}

/** What is recorded, and how late its sound is, ms. */
type OfPage = Omit<Filmed, 'title'> & { soundDelay: number | undefined };

/** By the browser's own recorder, which brings piece after piece. @throws where it cannot begin */
export async function recordInPage(
  id: string,
  title: string,
  { stream, provenance, letGo, soundDelay }: OfPage,
  shown: Shown | undefined,
  hearer: Hearer,
): Promise<Recorder> {
  const { recorder, type } = mediaRecorder(stream);
  await api.beginClip({ id, title, provenance, type, shown, soundDelay });
  const pieces = new Pieces(id, hearer.stands, hearer.over);
  recorder.ondataavailable = ({ data }) => pieces.add(data);
  recorder.onerror = () => hearer.over('The browser’s recorder gave up.');
  const gone = () => hearer.over('What was recorded is not shared any more.');
  for (const track of stream.getVideoTracks()) track.addEventListener('ended', gone);
  recorder.start(PIECE);
  const stopTelling = goesOn(id);
  return {
    inPage: true,
    pause: (paused) => {
      if (paused) recorder.pause();
      else recorder.resume();
      return Promise.resolve();
    },
    end: async () => {
      try {
        await stopped(recorder);
        letGo();
        await pieces.settled();
        return pieces.count;
      } finally {
        stopTelling();
      }
    },
  };
}

const ENDED =
  'It was ended elsewhere, the screen is another one, or it is as long as a clip may be.';
/** It is asked so often how it stands, ms. */
const LOOK = 1_000;

/** By the server; the page only asks how it stands. @throws where it cannot begin */
export async function recordThere(
  id: string,
  title: string,
  { begin }: FilmedThere,
  part: ShownThere,
  hearer: Hearer,
): Promise<Recorder> {
  await begin(id, title, part);
  return followThere(id, hearer);
}

/** One that the server makes already, as when the page was loaded anew in the middle. */
export function followThere(id: string, hearer: Hearer): Recorder {
  let pauses = 0;
  let isOver = false;
  const look = async () => {
    const before = pauses;
    const told = await api.clip(id).catch((error: unknown) =>
      // Nothing came of it, and it is gone.
      error instanceof ApiError && error.status === 404 ? ('gone' as const) : null,
    );
    if (told === 'gone') hearer.over(ENDED);
    else if (told?.state === 'going') {
      hearer.stands(told);
      // What was asked before it paused, or went on, is past.
      if (told.seconds !== undefined && before === pauses)
        hearer.isAt(told.seconds, told.paused ?? false);
    } else if (told) {
      // Whoever ended it may say so himself until then.
      if (isOver) hearer.over(ENDED);
      isOver = true;
    } else hearer.stands(null);
  };
  const timer = setInterval(() => void look(), LOOK);
  return {
    inPage: false,
    pause: async (paused) => {
      await api.pauseClip(id, paused);
      pauses += 1;
    },
    end: () => {
      clearInterval(timer);
      return Promise.resolve(0);
    },
  };
}
