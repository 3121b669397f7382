import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { notFound } from '../base/fault';

/**
 * Which bytes are asked for (RFC 9110, section 14): one range; null for all of them, also where what
 * is asked for makes no sense; `beyond` where it begins after the end.
 */
export function rangeOf(
  asked: string | null,
  length: number,
): { from: number; to: number } | 'beyond' | null {
  const [, first = '', last = ''] = /^bytes=(\d*)-(\d*)$/.exec(asked ?? '') ?? [];
  if (first === '' && last === '') return null;
  if (first === '') {
    const from = Math.max(0, length - Number(last));
    return Number(last) === 0 ? 'beyond' : { from, to: length - 1 };
  }
  const from = Number(first);
  if (from >= length) return 'beyond';
  const to = last === '' ? length - 1 : Math.min(Number(last), length - 1);
  return to < from ? null : { from, to };
}

/** A file, or the part of it that is asked for, never held as a whole. @throws Fault 404 */
export async function fileAnswer(
  request: Request,
  { path, type, etag }: { path: string; type: string; etag: string },
  headers: Record<string, string> = {},
): Promise<Response> {
  const { size } = await stat(path).catch(() => {
    throw notFound('file');
  });
  const always = {
    ...{ 'Content-Type': type, 'Accept-Ranges': 'bytes', ETag: `"${etag}"` },
    ...{ 'Cache-Control': 'private, no-cache', ...headers },
  };
  const range = rangeOf(request.headers.get('range'), size);
  if (range === 'beyond') {
    return new Response(null, {
      status: 416,
      headers: { ...always, 'Content-Range': `bytes */${size}` },
    });
  }
  const { from, to } = range ?? { from: 0, to: size - 1 };
  const stream = createReadStream(path, { start: from, end: to, signal: request.signal });
  // Whoever asked may go away in the middle.
  stream.on('error', () => undefined);
  return new Response(Readable.toWeb(stream) as ReadableStream<Uint8Array>, {
    status: range ? 206 : 200,
    headers: {
      ...always,
      'Content-Length': String(to - from + 1),
      ...(range && { 'Content-Range': `bytes ${from}-${to}/${size}` }),
    },
  });
}
