import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { untouched } from '@/core/document/view';
import { closeSql } from '../db/sql';
import { migrate } from '../db/migrate';
import { env } from '../base/env';
import { wrapNoMore } from '../clips/wrapAlong';
import { workNoMore } from '../jobs/run';
import { storeShot } from '../shots/store';

/** Brings the test database up to date; the tests share it and make their own shots and folders. */
export const begin = async (): Promise<void> => void (await migrate());
export async function finish(): Promise<void> {
  await workNoMore();
  await wrapNoMore();
  await closeSql();
}

/** A folder on disk of its own for a test. */
export function testFolder(name: string): string {
  const path = join(env().roots[0] ?? '', name);
  mkdirSync(path, { recursive: true });
  return path;
}

const own = (): string => `http://127.0.0.1:${env().port}`;

/** A request as Rezzik's own page sends it. */
export function request(
  path: string,
  init: RequestInit & { headers?: Record<string, string> } = {},
): Request {
  return new Request(own() + path, {
    ...init,
    headers: { host: `127.0.0.1:${env().port}`, ...init.headers },
  });
}

export const jsonRequest = (path: string, method: string, body: unknown): Request =>
  request(path, {
    method,
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });

/** A request with a picture in a form. */
export async function formRequest(
  picture: Uint8Array | null,
  fields: Record<string, string> = {},
): Promise<Request> {
  const form = new FormData();
  if (picture) form.set('frame', new Blob([new Uint8Array(picture)]), 'frame');
  for (const [name, value] of Object.entries(fields)) form.set(name, value);
  const packed = new Response(form);
  const bytes = await packed.arrayBuffer();
  const type = packed.headers.get('content-type') ?? '';
  return request('/api/shots', {
    method: 'POST',
    headers: { 'content-type': type, 'content-length': String(bytes.byteLength) },
    body: bytes,
  });
}

/** The context Next.js gives a route handler. */
export const at = <P>(params: P): { params: Promise<P> } => ({ params: Promise.resolve(params) });

export const telling = { width: 240, height: 160, description: 'Four beds seen from above.' };

/** A shot that knows where it comes from, which nobody else should learn. */
export async function storeTelling(): Promise<string> {
  const { description, ...size } = telling;
  const { id } = await storeShot({
    picture: await gradientPng(size.width, size.height),
    title: 'Beds',
    document: { ...untouched(size), description },
    provenance: {
      source: 'display',
      takenAt: '2026-11-23T14:02:11Z',
      windowTitle: 'Secret garden plan',
      address: 'https://inside.fernhollow.example/plan?key=471147',
    },
  });
  return id;
}

/** A picture whose every pixel tells its place. */
export function gradient(width: number, height: number): Uint8Array {
  const data = new Uint8Array(width * height * 3);
  for (let i = 0; i < width * height; i += 1) {
    data.set([(i % width) % 256, Math.floor(i / width) % 256, (i * 7) % 256], i * 3);
  }
  return data;
}

export const sizeOf = async (bytes: Uint8Array) => {
  const { width, height } = await sharp(bytes).metadata();
  return [width, height];
};

export const gradientPng = (width: number, height: number): Promise<Buffer> =>
  sharp(gradient(width, height), { raw: { width, height, channels: 3 } })
    .png()
    .toBuffer();
