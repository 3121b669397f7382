import { clipLimits, type Clip, type RecordedType } from '@/core/contracts/clip';
import type { Provenance } from '@/core/contracts/provenance';
import { clockOf } from '@/core/clip/clock';
import { filmEnds } from '@/core/clip/cuts';
import { api } from '../../api/client';
import { ApiError, messageOf } from '../../api/ask';
import { amend, notify } from '../../notices/noticeStore';
import { navigate } from '../../thread/navigate';
import { noteOutcome } from '../../trail/trail';
import { Pieces } from './pieces';

/** What a file says that it is, or its ending where it says nothing, and what it is read as. */
const kinds: Record<string, RecordedType> = {
  ...{ 'video/webm': 'video/webm', webm: 'video/webm' },
  ...{ 'video/x-matroska': 'video/x-matroska', mkv: 'video/x-matroska' },
  ...{ 'video/mp4': 'video/mp4', mp4: 'video/mp4', 'video/x-m4v': 'video/mp4', m4v: 'video/mp4' },
  ...{ 'video/quicktime': 'video/mp4', mov: 'video/mp4' },
};
/** For what lets a person choose files. */
export const filmsAccepted = 'video/*,.mkv';

const endingOf = ({ name }: File): string => name.split('.').at(-1)?.toLowerCase() ?? '';
const kindOf = (file: File): RecordedType | undefined => kinds[file.type] ?? kinds[endingOf(file)];

/** Other films, too: of these it is said that they cannot be read. */
export const isFilmFile = (file: File): boolean =>
  file.type.startsWith('video/') || (file.type === '' && kindOf(file) !== undefined);

const PIECE = 8_000_000;
/** It is looked so often whether a long one is a clip, ms. */
const LOOK = 700;

export interface Opened {
  id: string;
  title: string;
  provenance: Provenance;
  file: File;
}

/** @throws in words for the person */
function checkedKind(file: File): RecordedType {
  const kind = kindOf(file);
  if (!kind) throw new Error('Films are opened from WebM, MP4 and Matroska files.');
  if (file.size > clipLimits.bytes) throw new Error('A film may have at most 8 GB.');
  return kind;
}

/** Sends a file piece by piece. @param heard hears how much of it is there, 0–1 */
async function send(
  { id, file }: Opened,
  heard: (share: number, away: boolean) => void,
  signal: AbortSignal,
): Promise<number> {
  let why: string | null = null;
  let share = 0;
  const pieces = new Pieces(
    id,
    (told) => heard((share = told ? told.bytes / file.size : share), !told),
    (words) => {
      why = words;
    },
  );
  const stopped = new Promise<never>((_, reject) => {
    signal.addEventListener('abort', () => reject(new Error('Stopped.')));
  });
  for (let from = 0; from < file.size; from += PIECE) {
    pieces.add(file.slice(from, from + PIECE));
    await Promise.race([pieces.settled(), stopped]);
    if (why !== null) throw new Error(why);
  }
  return pieces.count;
}

/** @throws why it is none */
async function madeClip(id: string, pieces: number): Promise<Clip> {
  const nothing = (error: unknown): never => {
    if (error instanceof ApiError && error.status === 404)
      throw new Error('There is no picture in this film.');
    throw error;
  };
  let told = await api.endClip(id, pieces, false).catch(nothing);
  while (told.state !== 'ready') {
    if (told.problem !== null) throw new Error(told.problem);
    await new Promise((resolve) => setTimeout(resolve, LOOK));
    told = await api.clip(id);
  }
  return told;
}

/**
 * Makes a clip of a film that is brought in, and says how far that is under a notice of its own.
 * @param open it is opened then
 */
export async function bringFilm(opened: Opened, key: string, open: boolean): Promise<void> {
  const { id, title, provenance, file } = opened;
  const stop = new AbortController();
  const action = { label: 'Stop', act: () => stop.abort() };
  const note = (state: 'going' | 'done' | 'failed', said: string) =>
    noteOutcome(id, { key: 'file', state, said });
  note('going', 'Storing it');
  notify({ key, tone: 'plain', title, lines: ['Being stored …'], stays: true, action });
  try {
    await api.beginClip({ id, title, provenance, type: checkedKind(file) });
    const heard = (share: number, away: boolean) =>
      amend(key, {
        lines: [away ? 'Rezzik’s server does not answer; it is tried again.' : sharesSaid(share)],
      });
    const count = await send(opened, heard, stop.signal);
    amend(key, { lines: ['Made ready …'], action: undefined });
    const { width, height, times } = await madeClip(id, count);
    const show = () => navigate(`/clips/${id}`);
    amend(key, {
      ...{ tone: 'good', picture: `/api/shots/${id}/thumbnail?revision=1`, href: `/clips/${id}` },
      lines: [`${width} × ${height} px, ${clockOf(filmEnds(times))} long, on the Shelf`],
      action: { label: 'Open', act: show },
      until: Date.now() + 9000,
    });
    note('done', 'Stored as a clip');
    if (open) show();
  } catch (error) {
    // Nothing of it is left; what is not begun cannot be let go of, either.
    await api.letGoOfRecording(id).catch(() => undefined);
    const said = messageOf(error);
    note('failed', `Not taken. ${said}`);
    const lines = [said, 'The file itself is untouched.'];
    notify({
      key,
      tone: stop.signal.aborted ? 'plain' : 'bad',
      title: `“${title}” was not taken`,
      lines,
    });
  }
}

const sharesSaid = (share: number): string => `Being stored … ${Math.round(100 * share)} %`;
