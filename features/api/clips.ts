import {
  clipAnswerSchema,
  clipJobSchema,
  cutStateSchema,
  recordedNowSchema,
  recordingSchema,
  type Clip,
  type ClipBegin,
  type ClipChange,
  type ClipJob,
  type ClipLink,
  type ClipWish,
  type CutState,
  type DisplayClip,
  type DisplayRecording,
  type Recording,
} from '@/core/contracts/clip';
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
  endClip: (id: string, pieces: number, bin: boolean): Promise<Clip | Recording> =>
    read(clipAnswerSchema, `${path(id)}/end`, sent('POST', { pieces, bin })),
  clip: (id: string): Promise<Clip | Recording> => read(clipAnswerSchema, path(id)),
  /** The picture that is seen at a moment, seconds from the start, as it was recorded. */
  clipFrame: async (id: string, at: number): Promise<Blob> =>
    (await ask(`${path(id)}/frames?at=${at}`)).blob(),
  changeCuts: (id: string, change: ClipChange): Promise<CutState> =>
    read(cutStateSchema, path(id), sent('PUT', change)),
  pickStill: (id: string, at: number): Promise<Stored> =>
    read(storedSchema, `${path(id)}/stills`, sent('POST', { at, id: crypto.randomUUID() })),
  writeClip: (id: string, wish: ClipWish): Promise<ClipJob> =>
    read(clipJobSchema, `${path(id)}/copies`, sent('POST', wish)),
  clipWriting: (id: string, job: string): Promise<ClipJob> =>
    read(clipJobSchema, `${path(id)}/copies/${job}`),
  /** A link under which a film that was written is played. */
  linkClip: (id: string, wish: ClipLink): Promise<Link> =>
    read(linkSchema, `${path(id)}/links`, sent('POST', wish)),
  stopWriting: (id: string, job: string) => ask(`${path(id)}/copies/${job}`, { method: 'DELETE' }),
};

export const videoUrl = (id: string): string => `${path(id)}/video`;
/** @param marks their revision: what hides is hidden there, too */
export const stripUrl = (id: string, marks: number): string => `${path(id)}/strip?marks=${marks}`;
export const madeUrl = (id: string, job: string): string => `${path(id)}/copies/${job}/file`;
