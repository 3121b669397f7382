import {
  clipAnswerSchema,
  cutStateSchema,
  recordedNowSchema,
  recordingSchema,
  type Clip,
  type ClipBegin,
  type ClipChange,
  type CutState,
  type DisplayClip,
  type DisplayRecording,
  type Recording,
} from '@/core/contracts/clip';
import {
  clipBytesSchema,
  clipJobSchema,
  type ClipDrop,
  type ClipJob,
  type ClipLink,
  type ClipMail,
  type ClipSize,
  type ClipWish,
} from '@/core/contracts/clipCopy';
import type { Followed } from '@/core/clip/followed';
import type { Pressed } from '@/core/clip/pressed';
import { nameInDisposition } from '@/core/naming/disposition';
import { linkSchema, type Link } from '@/core/contracts/link';
import { storedSchema, type Stored } from '@/core/contracts/shot';
import { ask, read, sent } from './ask';

const path = (id: string): string => `/api/clips/${id}`;

/** What is asked of the server about clips. */
export const clipsApi = {
  beginClip: (wish: ClipBegin): Promise<Recording> =>
    read(recordingSchema, '/api/clips', sent('POST', wish)),
  /** What is recorded of this computer's screen now, by whatever page. */
  recordedNow: async (): Promise<DisplayRecording | null> =>
    (await read(recordedNowSchema, '/api/clips/display')).recording,
  beginDisplayClip: (wish: DisplayClip): Promise<Recording> =>
    read(recordingSchema, '/api/clips/display', sent('POST', wish)),
  addClipPiece: (id: string, number: number, bytes: ArrayBuffer): Promise<Recording> =>
    read(recordingSchema, `${path(id)}/pieces/${number}`, {
      method: 'PUT',
      headers: { 'Content-Type': 'application/octet-stream' },
      body: bytes,
    }),
  /** It is recorded still, although nothing may come of it. */
  clipGoesOn: (id: string) => ask(`${path(id)}/alive`, { method: 'POST' }),
  /** Drops for good what it does not show. */
  dropRestOfClip: (id: string, drops: ClipDrop): Promise<ClipJob> =>
    read(clipJobSchema, `${path(id)}/rest`, sent('POST', drops)),
  /** What is recorded of this computer’s screen. */
  pauseClip: (id: string, paused: boolean) => ask(`${path(id)}/pause`, sent('PUT', { paused })),
  /** What a hand did while it is recorded. */
  clipPressed: (id: string, pressed: readonly Pressed[]) =>
    ask(`${path(id)}/pressed`, sent('POST', pressed)),
  clipFollowed: (id: string, followed: readonly Followed[]) =>
    ask(`${path(id)}/followed`, sent('POST', followed)),
  endClip: (id: string, pieces: number, bin: boolean): Promise<Clip | Recording> =>
    read(clipAnswerSchema, `${path(id)}/end`, sent('POST', { pieces, bin })),
  /** What came of a recording that is no clip yet is dropped. */
  letGoOfRecording: (id: string) => ask(path(id), { method: 'DELETE' }),
  clip: (id: string): Promise<Clip | Recording> => read(clipAnswerSchema, path(id)),
  /** The picture that is seen at a moment, seconds from the start, as it was recorded. */
  clipFrame: async (id: string, at: number): Promise<Blob> =>
    (await ask(`${path(id)}/frames?at=${at}`)).blob(),
  changeCuts: (id: string, change: ClipChange): Promise<CutState> =>
    read(cutStateSchema, path(id), sent('PUT', change)),
  pickStill: (id: string, at: number): Promise<Stored> =>
    read(storedSchema, `${path(id)}/stills`, sent('POST', { at, id: crypto.randomUUID() })),
  /** About how many bytes a file of it will have. */
  clipSize: async (id: string, wish: ClipSize, signal: AbortSignal): Promise<number> => {
    const { rate, ...rest } = wish;
    const asked = { ...rest, ...(rate !== null && { rate }) };
    const query = new URLSearchParams(
      Object.entries(asked).map(([name, value]) => [name, String(value)]),
    );
    return (await read(clipBytesSchema, `${path(id)}/size?${query}`, { signal })).bytes;
  },
  writeClip: (id: string, wish: ClipWish): Promise<ClipJob> =>
    read(clipJobSchema, `${path(id)}/copies`, sent('POST', wish)),
  clipWriting: (id: string, job: string): Promise<ClipJob> =>
    read(clipJobSchema, `${path(id)}/copies/${job}`),
  /** A link under which a film that was written is played. */
  linkClip: (id: string, wish: ClipLink): Promise<Link> =>
    read(linkSchema, `${path(id)}/links`, sent('POST', wish)),
  /** A draft with a file that was written. */
  mailClip: async (id: string, wish: ClipMail): Promise<{ blob: Blob; name: string }> => {
    const answer = await ask(`${path(id)}/mail`, sent('POST', wish));
    const name = nameInDisposition(answer.headers.get('content-disposition') ?? '');
    return { blob: await answer.blob(), name: name ?? 'clip.eml' };
  },
  stopWriting: (id: string, job: string) => ask(`${path(id)}/copies/${job}`, { method: 'DELETE' }),
};

export const videoUrl = (id: string): string => `${path(id)}/video`;
/** @param marks their revision: what hides is hidden there, too */
export const stripUrl = (id: string, marks: number): string => `${path(id)}/strip?marks=${marks}`;
/** What is kept of it alone. @param seconds that it plays: another address where it was cut anew */
export const keptStripUrl = (id: string, marks: number, seconds: number): string =>
  `${stripUrl(id, marks)}&seconds=${seconds}&kept=true`;
export const madeUrl = (id: string, job: string): string => `${path(id)}/copies/${job}/file`;
