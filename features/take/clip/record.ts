import type { Shown } from '@/core/take/shownPart';
import { clipLimits } from '@/core/contracts/clip';
import type { Provenance } from '@/core/contracts/provenance';
import type { TakenFrom, Way } from '@/core/contracts/way';
import type { Size } from '@/core/geometry/size';
import { autoTitle } from '@/core/take/autoTitle';
import { ApiError, messageOf } from '../../api/ask';
import { api } from '../../api/client';
import { countOne } from '../../names/dayCount';
import { notify } from '../../notices/noticeStore';
import { navigate } from '../../thread/navigate';
import { beginEntry } from '../../trail/trail';
import { sources } from '../sources/list';
import { followThere, recordInPage, recordThere, type Hearer, type Recorder } from './recorder';
import { recordedMs, useRecording, type RecordingState } from './state';

interface Running {
  recorder: Recorder;
  limit: ReturnType<typeof setTimeout> | undefined;
}

let running: Running | null = null;

const change = (patch: Partial<RecordingState>): void =>
  useRecording.setState(({ now }) => ({ now: now && { ...now, ...patch } }));

const hearer: Hearer = {
  stands: (bytes) => change(bytes === null ? { away: true } : { away: false, bytes }),
  over: (why) => void endRecording({ why }),
};

/** A part that was chosen on a still picture. */
export interface ChosenPart {
  shown: Shown;
  /** Of the window or part that it is. */
  title?: string | undefined;
  provenance: Pick<Provenance, 'windowTitle' | 'program' | 'part'>;
}

/**
 * Records what moves, until it is ended.
 * @param part what of it is shown; all of it where absent
 * @throws with words where nothing can be recorded
 */
export async function startRecording(way: Way, part?: ChosenPart): Promise<void> {
  checkRecords(way);
  useRecording.setState({ begins: true });
  try {
    await begin(way, part);
  } finally {
    useRecording.setState({ begins: false });
  }
}

/** @throws with words where nothing can be recorded now, or not of this source */
export function checkRecords({ source }: Way): void {
  const { now, begins } = useRecording.getState();
  if (now || begins) throw new Error('A clip is being recorded already. End that one first.');
  const { clip } = sources[source].can;
  if (clip !== true) throw new Error(clip);
}

async function begin(way: Way, part: ChosenPart | undefined): Promise<void> {
  const { shown } = part ?? {};
  const id = crypto.randomUUID();
  const { film, filmThere } = sources[way.source];
  if (filmThere) {
    const there = await filmThere(way);
    const title = autoTitle('clip', countOne(), part?.title ?? there.title, way.source);
    const recorder = await recordThere(id, title, there, shown, hearer);
    begun(way.source, id, title, shown?.crop ?? there, recorder);
    return;
  }
  const filmed = await film?.(way);
  if (!filmed) throw new Error('Nothing can be recorded here.');
  const title = autoTitle('clip', countOne(), part?.title ?? filmed.title, way.source);
  const { width = 0, height = 0 } = filmed.stream.getVideoTracks()[0]?.getSettings() ?? {};
  const of = { ...filmed, provenance: { ...filmed.provenance, ...part?.provenance } };
  try {
    const recorder = await recordInPage(id, title, of, shown, hearer);
    begun(way.source, id, title, shown?.crop ?? { width, height }, recorder);
  } catch (error) {
    filmed.letGo();
    throw error;
  }
}

/** What the server records goes on over a reload, and is seen to in every page. */
export async function joinRecording(): Promise<void> {
  const there = await api.recordedNow().catch(() => null);
  const { now, begins } = useRecording.getState();
  if (!there || now || begins) return;
  const { id, title, since } = there;
  begun('display', id, title, there, followThere(id, hearer));
  change({ since: Date.parse(since) });
  limitIt();
}

function begun(
  source: TakenFrom,
  id: string,
  title: string,
  { width, height }: Size,
  recorder: Recorder,
): void {
  running = { recorder, limit: undefined };
  useRecording.setState({
    now: {
      ...{ id, source, title, width, height, before: 0, since: Date.now() },
      ...{ bytes: 0, away: false, ending: false, pauses: recorder.pause !== undefined },
    },
  });
  // What the server records goes on without this page.
  if (recorder.pause) window.addEventListener('beforeunload', warn);
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
  running.limit = setTimeout(
    () => void endRecording({ why: 'A clip is ten minutes long at most.' }),
    left,
  );
}

/** Pauses, or goes on. */
export function togglePause(): void {
  const { now } = useRecording.getState();
  if (!running?.recorder.pause || !now || now.ending) return;
  const paused = now.since !== null;
  running.recorder.pause(paused);
  change(paused ? { before: recordedMs(now), since: null } : { since: Date.now() });
  limitIt();
}

/**
 * Ends it, and opens what was recorded.
 * @param bin it goes to the Bin instead
 */
export async function endRecording({ bin = false, why = '' } = {}): Promise<void> {
  const { now } = useRecording.getState();
  if (!running || !now || now.ending) return;
  const { recorder, limit } = running;
  clearTimeout(limit);
  change({ ending: true, before: recordedMs(now), since: null });
  try {
    const clip = await api.endClip(now.id, await recorder.end(), bin);
    if (clip.state === 'ready') told(now, bin, why);
    else tellKept(now.title, clip.problem ?? 'It could not be made ready now.');
  } catch (error) {
    if (error instanceof ApiError && error.status === 404) nothingThere();
    else if (error instanceof ApiError && error.code === 'over')
      told(now, false, why || error.message);
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
  const open = () => navigate(`/clips/${id}`);
  // Whoever is elsewhere meanwhile is not taken away from there.
  const isElsewhere = !window.location.pathname.startsWith('/take');
  if (why) {
    const action = isElsewhere ? { label: 'Open', act: open } : undefined;
    notify({ key: 'clip', tone: 'plain', title: 'The recording has ended', lines: [why], action });
  }
  if (!why || !isElsewhere) open();
}
