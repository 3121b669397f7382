import { expect } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import { clipAnswerSchema, type Clip } from '@/core/contracts/clip';
import { clipJobSchema, type ClipJob, type ClipWish } from '@/core/contracts/clipCopy';
import { POST as beginClip } from '@/app/api/clips/route';
import * as one from '@/app/api/clips/[id]/route';
import { PUT as putPiece } from '@/app/api/clips/[id]/pieces/[n]/route';
import { POST as copies } from '@/app/api/clips/[id]/copies/route';
import * as writing from '@/app/api/clips/[id]/copies/[job]/route';
import { POST as end } from '@/app/api/clips/[id]/end/route';
import { workAlone } from '../jobs/run';
import { at, jsonRequest, request } from './setup';
import '../clips/finish';
import '../clips/copies';

export const provenance = {
  source: 'desk',
  takenAt: '2026-11-27T09:12:00.000Z',
  display: 'Left',
} as const;

export const begun = (id: string, more: object = {}): Promise<Response> =>
  beginClip(
    jsonRequest('/api/clips', 'POST', { id, provenance, type: 'video/x-matroska', ...more }),
    at({}),
  );
export const piece = (id: string, n: number, bytes: Uint8Array): Promise<Response> =>
  putPiece(request('/x', { method: 'PUT', body: new Uint8Array(bytes) }), at({ id, n: String(n) }));
export const ended = (id: string, pieces: number, bin = false): Promise<Response> =>
  end(jsonRequest('/x', 'POST', { pieces, bin }), at({ id }));
export const look = async (id: string) => {
  const answer = await one.GET(request('/x'), at({ id }));
  return { status: answer.status, told: clipAnswerSchema.safeParse(await answer.json()).data };
};

export function cutUp(bytes: Buffer, count: number): Buffer[] {
  const size = Math.ceil(bytes.length / count);
  return Array.from({ length: count }, (_, i) => bytes.subarray(i * size, (i + 1) * size));
}

/** A clip once nothing goes on with it any more. */
export async function lookedThrough(id: string): Promise<Clip> {
  for (;;) {
    await workAlone('clipLook');
    const { told } = await look(id);
    if (told?.state !== 'ready') throw new Error(`It is ${told?.state}.`);
    if (told.changes) return told;
    await pause(30);
  }
}

export async function recorded(bytes: Buffer, more: object = {}): Promise<Clip> {
  const id = randomUUID();
  await begun(id, more);
  const pieces = cutUp(bytes, 4);
  for (const [n, part] of pieces.entries()) expect((await piece(id, n, part)).status).toBe(200);
  expect((await ended(id, pieces.length)).status).toBe(200);
  return lookedThrough(id);
}

export const codeOf = async (answer: Response): Promise<unknown> => {
  const { error } = (await answer.json()) as { error: { code: string } };
  return [answer.status, error.code];
};

/** A file of a clip, once it is written. */
export async function wanted(id: string, wish: ClipWish): Promise<ClipJob> {
  const answer = await copies(jsonRequest('/x', 'POST', wish), at({ id }));
  if (answer.status !== 202) throw new Error(JSON.stringify(await answer.json()));
  return written(id, answer);
}

/** What became of a job, once it has ended. @param answer to what asked for it */
export async function written(id: string, answer: Response): Promise<ClipJob> {
  const { id: job } = clipJobSchema.parse(await answer.json());
  for (;;) {
    await workAlone('clipWrite');
    const now = clipJobSchema.parse(
      await (await writing.GET(request('/x'), at({ id, job }))).json(),
    );
    if (now.state === 'done' || now.state === 'stopped') return now;
    await pause(30);
  }
}
