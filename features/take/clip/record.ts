import type { Shown } from '@/core/take/shownPart';
import type { Clip, DisplayClip } from '@/core/contracts/clip';
import type { Provenance } from '@/core/contracts/provenance';
import type { TakenFrom, Way } from '@/core/contracts/way';
import type { Size } from '@/core/geometry/size';
import { autoTitle } from '@/core/take/autoTitle';
import { ApiError, messageOf } from '../../api/ask';
import { api } from '../../api/client';
import { rememberEnded } from '../../films/justEnded';
import { countOne } from '../../names/dayCount';
import { dismiss, notify } from '../../notices/noticeStore';
import { useSettings } from '../../settings/settingsStore';
import { navigate } from '../../thread/navigate';
import { beginEntry } from '../../trail/trail';
import { sources } from '../sources/list';
import { noteHand, type HandNotes } from './hand';
import { followThere, recordInPage, recordThere, type Hearer, type Recorder } from './recorder';
import { soundOf, type Sound } from './sound';
import { recordedMs, useRecording, type RecordingState } from './state';

interface Running {
  recorder: Recorder;
  /** Ends listening whether something is heard. */
  deafen?: (() => void) | undefined;
  hand?: HandNotes;
  limit: ReturnType<typeof setTimeout> | undefined;
}

let running: Running | null = null;

const change = (patch: Partial<RecordingState>): void =>
  useRecording.setState(({ now }) => ({ now: now && { ...now, ...patch } }));

const hearer: Hearer = {
  stands: (told) =>
    change(told ? { away: false, bytes: told.bytes, room: told.room } : { away: true }),
  isAt: (seconds, paused) => {
    change({ before: seconds * 1000, since: paused ? null : Date.now() });
    limitIt();
  },
  over: (why) => void endRecording({ why }),
};

/** A part that was chosen on a still picture. */
export interface ChosenPart {
  shown: Shown;
  /** A window that the view follows. */
  follow?: DisplayClip['follow'];
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

/** @throws with words where nothing can be recorded now, or not of this source, or without sound */
export function checkRecords({ source, sounds }: Way): void {
  const { now, begins } = useRecording.getState();
  if (now || begins) throw new Error('A clip is being recorded already. End that one first.');
  const { can } = sources[source];
  if (can.clip !== true) throw new Error(can.clip);
  for (const name of sounds) {
    const sound = can.sounds?.[name] ?? true;
    if (sound !== true) throw new Error(sound);
  }
}

async function begin(way: Way, part: ChosenPart | undefined): Promise<void> {
  const { shown, follow } = part ?? {};
  const id = crypto.randomUUID();
  const { film, filmThere } = sources[way.source];
  if (filmThere) {
    const there = await filmThere(way);
    const title = autoTitle('clip', countOne(), part?.title ?? there.title, way.source);
    const recorder = await recordThere(id, title, there, { shown, follow }, hearer);
    begun(way.source, id, title, shown?.crop ?? there, recorder);
    return;
  }
  const filmed = await film?.(way);
  if (!filmed) throw new Error('Nothing can be recorded here.');
  const title = autoTitle('clip', countOne(), part?.title ?? filmed.title, way.source);
  const { width = 0, height = 0 } = filmed.stream.getVideoTracks()[0]?.getSettings() ?? {};
  let sound: Sound | null = null;
  const letGo = () => {
    sound?.letGo();
    filmed.letGo();
  };
  try {
    sound = await heardWith(filmed.stream, way);
    const stream = new MediaStream([
      ...filmed.stream.getVideoTracks(),
      ...(sound ? [sound.track] : []),
    ]);
    const provenance = { ...filmed.provenance, ...part?.provenance };
    const recorder = await recordInPage(
      id,
      title,
      { stream, provenance, letGo, soundDelay: sound?.delay },
      shown,
      hearer,
    );
    begun(way.source, id, title, shown?.crop ?? { width, height }, recorder);
    if (sound) listen(sound);
    if (running) running.hand = noteHand(id, filmed, { ...way, follow }, momentNow);
  } catch (error) {
    letGo();
    throw error;
  }
}

/** How far what is recorded is, seconds; null while it pauses. */
function momentNow(): number | null {
  const { now } = useRecording.getState();
  return now && now.since !== null ? recordedMs(now) / 1000 : null;
}

/** What is heard of it, and said where that ends: the pictures go on. */
function heardWith(stream: MediaStream, { source, sounds }: Way): Promise<Sound | null> {
  const { microphone } = sources[source].can.sounds ?? {};
  const isWanted = microphone !== undefined && sounds.includes('microphone');
  return soundOf(stream.getAudioTracks(), isWanted, (isMicrophone) =>
    notify({
      ...{ key: 'sound', tone: 'bad' },
      title: isMicrophone ? 'The microphone has gone' : 'What is shared has no sound any more',
      lines: ['The clip goes on without it.'],
    }),
  );
}

/** It is listened to so often, and said after so long that nothing is heard, ms. */
const LISTEN = 500;
const SILENT = 4_000;

function listen(sound: Sound): void {
  let last = Date.now();
  change({ sound: 'heard' });
  const timer = setInterval(() => {
    const { now } = useRecording.getState();
    if (sound.isHeard() || now?.since === null) last = Date.now();
    const state = Date.now() - last > SILENT ? 'silent' : 'heard';
    if (now && now.sound !== state) change({ sound: state });
  }, LISTEN);
  if (running) running.deafen = () => clearInterval(timer);
}

/** What the server records goes on over a reload, and is seen to in every page. */
export async function joinRecording(): Promise<void> {
  const there = await api.recordedNow().catch(() => null);
  const { now, begins } = useRecording.getState();
  if (!there || now || begins) return;
  const { id, title, seconds, paused } = there;
  begun('display', id, title, there, followThere(id, hearer));
  hearer.isAt(seconds, paused);
}

/** What a system key has ended, which says so itself, is not followed any more. */
export async function leaveEnded(id: string): Promise<void> {
  const { now } = useRecording.getState();
  if (!running || now?.id !== id || now.ending) return;
  const { recorder, limit } = running;
  clearTimeout(limit);
  running = null;
  useRecording.setState({ now: null });
  await recorder.end();
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
      ...{
        bytes: 0,
        room: null,
        away: false,
        ending: false,
        sound: null,
      },
    },
  });
  // What the server records goes on without this page.
  if (recorder.inPage) window.addEventListener('beforeunload', warn);
  limitIt();
}

/** A tab that goes away ends it; what was recorded until then is kept. */
const warn = (event: BeforeUnloadEvent): void => event.preventDefault();

function limitIt(): void {
  const { now } = useRecording.getState();
  if (!running || !now) return;
  clearTimeout(running.limit);
  if (now.since === null) return;
  const { clipMinutes } = useSettings.getState().settings;
  const most = clipMinutes === 1 ? 'a minute' : `${clipMinutes} minutes`;
  running.limit = setTimeout(
    () => void endRecording({ why: `A clip is ${most} long at most, as Setup has it.` }),
    clipMinutes * 60_000 - recordedMs(now),
  );
}

/** Pauses, or goes on. */
export async function togglePause(): Promise<void> {
  const { now } = useRecording.getState();
  if (!running || !now || now.ending) return;
  const paused = now.since !== null;
  try {
    await running.recorder.pause(paused);
  } catch (error) {
    const title = paused ? 'It goes on: it could not be paused' : 'It does not go on';
    return notify({ key: 'clip', tone: 'bad', title, lines: [messageOf(error)] });
  }
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
  const { recorder, limit, deafen, hand } = running;
  clearTimeout(limit);
  deafen?.();
  change({ ending: true, before: recordedMs(now), since: null });
  try {
    await hand?.end();
    const clip = await api.endClip(now.id, await recorder.end(), bin);
    if (clip.state === 'ready') told(now, bin, why, clip);
    else tellKept(now, clip.problem ?? 'It could not be made ready now.');
  } catch (error) {
    if (error instanceof ApiError && error.status === 404) nothingThere();
    else if (error instanceof ApiError && error.code === 'over')
      told(now, false, why || error.message);
    else tellKept(now, messageOf(error));
  } finally {
    running = null;
    window.removeEventListener('beforeunload', warn);
    useRecording.setState({ now: null });
  }
}

const nothingThere = (): void =>
  notify({ key: 'clip', tone: 'bad', title: 'Nothing was recorded', lines: ['No picture came.'] });

/** Its view says how it stands, and tries again. */
const tellKept = ({ id, title }: RecordingState, why: string): void =>
  notify({
    ...{ key: 'clip', tone: 'bad', title: `“${title}” is no clip yet` },
    lines: [why, 'What was recorded is kept, and is made a clip as soon as that is possible.'],
    action: {
      label: 'Look at it',
      act: () => {
        dismiss('clip');
        navigate(`/clips/${id}`);
      },
    },
  });

function told({ id, title }: RecordingState, bin: boolean, why: string, clip?: Clip): void {
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
  if (why && isElsewhere) return;
  if (clip) rememberEnded(clip);
  open();
}
