import { clipLimits, type RecordedType } from '@/core/contracts/clip';
import type { Way } from '@/core/contracts/way';
import { autoTitle } from '@/core/take/autoTitle';
import { ApiError, messageOf } from '../../api/ask';
import { api } from '../../api/client';
import { countOne } from '../../names/dayCount';
import { notify } from '../../notices/noticeStore';
import { navigate } from '../../thread/navigate';
import { beginEntry } from '../../trail/trail';
import type { Filmed } from '../sources/contract';
import { sources } from '../sources/list';
import { Pieces } from './pieces';
import { recordedMs, useRecording, type RecordingState } from './state';

/** A piece comes so often, ms: what a crash can take with it. */
const PIECE = 1_000;
/** Pictures that can be gone to, every so often, ms. */
const KEY_EVERY = 2_000;
/** Bits that a pixel of a picture has on average: coloured words stay clear. */
const BITS_A_PIXEL = 0.45;
const RATE = 15;

/** The most frugal first. */
const wishes: readonly { mime: string; type: RecordedType }[] = [
  { mime: 'video/webm;codecs=avc1', type: 'video/x-matroska' },
  { mime: 'video/webm;codecs=vp9', type: 'video/webm' },
  { mime: 'video/webm;codecs=vp8', type: 'video/webm' },
  { mime: 'video/webm', type: 'video/webm' },
  { mime: 'video/mp4', type: 'video/mp4' },
];

interface Running {
  filmed: Filmed;
  recorder: MediaRecorder;
  pieces: Pieces;
  limit: ReturnType<typeof setTimeout> | undefined;
}

let running: Running | null = null;

const change = (patch: Partial<RecordingState>): void =>
  useRecording.setState(({ now }) => ({ now: now && { ...now, ...patch } }));

type Options = MediaRecorderOptions & { videoKeyFrameIntervalDuration?: number };

function recorderOf(stream: MediaStream): { recorder: MediaRecorder; type: RecordedType } {
  const wish = wishes.find(({ mime }) => MediaRecorder.isTypeSupported(mime));
  if (!wish) throw new Error('This browser records nothing. Another one may.');
  const { width = 1920, height = 1080 } = stream.getVideoTracks()[0]?.getSettings() ?? {};
  const options: Options = {
    mimeType: wish.mime,
    videoBitsPerSecond: Math.round(Math.max(2e6, width * height * RATE * BITS_A_PIXEL)),
    videoKeyFrameIntervalDuration: KEY_EVERY,
  };
  return { recorder: new MediaRecorder(stream, options), type: wish.type };
}

/** Records what moves, until it is ended. @throws with words where nothing can be recorded */
export async function startRecording(way: Way): Promise<void> {
  if (useRecording.getState().now || useRecording.getState().begins)
    throw new Error('A clip is being recorded already. End that one first.');
  const source = sources[way.source];
  const { clip } = source.can;
  if (clip !== true || !source.film) throw new Error(String(clip));
  useRecording.setState({ begins: true });
  let filmed: Filmed | null = null;
  try {
    if (!('MediaRecorder' in window)) throw new Error('This browser records nothing.');
    filmed = await source.film(way);
    await begin(way, filmed);
  } catch (error) {
    filmed?.letGo();
    throw error;
  } finally {
    useRecording.setState({ begins: false });
  }
}

async function begin({ source }: Way, filmed: Filmed): Promise<void> {
  const { recorder, type } = recorderOf(filmed.stream);
  const { provenance } = filmed;
  const title = autoTitle('clip', countOne(), filmed.title, source);
  const id = crypto.randomUUID();
  await api.beginClip({ id, title, provenance, type });
  const pieces = new Pieces(
    id,
    ({ bytes, away }) => change(away ? { away } : { away, bytes }),
    (why) => void endBecause(why),
  );
  recorder.ondataavailable = ({ data }) => pieces.add(data);
  const { width = 0, height = 0 } = filmed.stream.getVideoTracks()[0]?.getSettings() ?? {};
  running = { filmed, recorder, pieces, limit: undefined };
  useRecording.setState({
    now: {
      ...{ id, source, title, width, height, before: 0, since: Date.now() },
      ...{ bytes: 0, away: false, ending: false },
    },
  });
  for (const track of filmed.stream.getTracks())
    track.addEventListener(
      'ended',
      () => void endBecause('What was recorded is not shared any more.'),
    );
  recorder.onerror = () => void endBecause('The browser’s recorder gave up.');
  recorder.start(PIECE);
  window.addEventListener('beforeunload', warn);
  limitIt();
}

/** A tab that goes away ends it; what was recorded until then is kept. */
const warn = (event: BeforeUnloadEvent): void => event.preventDefault();

function limitIt(): void {
  const { now } = useRecording.getState();
  if (!running || !now) return;
  clearTimeout(running.limit);
  if (now.since === null) return;
  const left = clipLimits.seconds * 1000 - recordedMs(now);
  running.limit = setTimeout(() => void endBecause('A clip is ten minutes long at most.'), left);
}

/** Pauses, or goes on. */
export function togglePause(): void {
  const { now } = useRecording.getState();
  if (!running || !now || now.ending) return;
  if (now.since === null) {
    running.recorder.resume();
    change({ since: Date.now() });
  } else {
    running.recorder.pause();
    change({ before: recordedMs(now), since: null });
  }
  limitIt();
}

/** The last piece is there. */
const stopped = (recorder: MediaRecorder): Promise<void> =>
  new Promise((resolve) => {
    if (recorder.state === 'inactive') return resolve();
    recorder.addEventListener('stop', () => resolve(), { once: true });
    recorder.stop();
  });

async function endBecause(why: string): Promise<void> {
  await endRecording({ why });
}

/**
 * Ends it, and opens what was recorded.
 * @param bin it goes to the Bin instead
 */
export async function endRecording({ bin = false, why = '' } = {}): Promise<void> {
  const { now } = useRecording.getState();
  if (!running || !now || now.ending) return;
  const { recorder, filmed, pieces, limit } = running;
  clearTimeout(limit);
  change({ ending: true, before: recordedMs(now), since: null });
  try {
    await stopped(recorder);
    filmed.letGo();
    await pieces.settled();
    const clip = await api.endClip(now.id, pieces.count, bin);
    if (clip.state === 'ready') told(now, bin, why);
    else tellKept(now.title, clip.problem ?? 'It could not be made ready now.');
  } catch (error) {
    if (error instanceof ApiError && error.status === 404) nothingThere();
    else if (error instanceof ApiError && error.code === 'over') told(now, false, error.message);
    else tellKept(now.title, messageOf(error));
  } finally {
    running = null;
    window.removeEventListener('beforeunload', warn);
    useRecording.setState({ now: null });
  }
}

const nothingThere = (): void =>
  notify({ key: 'clip', tone: 'bad', title: 'Nothing was recorded', lines: ['No picture came.'] });

const tellKept = (title: string, why: string): void =>
  notify({
    ...{ key: 'clip', tone: 'bad', title: `“${title}” is no clip yet` },
    lines: [why, 'What was recorded is kept, and is made a clip as soon as that is possible.'],
  });

function told({ id, title }: RecordingState, bin: boolean, why: string): void {
  beginEntry(id, title, new Date().toISOString());
  if (bin) {
    notify({
      ...{ key: 'clip', tone: 'plain', title: `“${title}” lies in the Bin` },
      action: {
        label: 'Bring it back',
        act: () => void api.restore(id).then(() => navigate(`/clips/${id}`)),
      },
    });
    return;
  }
  if (why) notify({ key: 'clip', tone: 'plain', title: 'The recording has ended', lines: [why] });
  navigate(`/clips/${id}`);
}
