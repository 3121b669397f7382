import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { shared } from '../base/shared';
import { rangeOf } from '../http/fileRange';
import { filmPath } from '../media/files';
import type { Seen } from './links';
import type { LinkAnswer } from './answer';

/** A film is fetched in pieces, and looked at again: all of that is the one view of its page, ms. */
const LASTS = 6 * 3_600_000;
const secret = shared('linkTickets', () => randomBytes(32));

const signed = (token: string, until: number): string =>
  createHmac('sha256', secret).update(`${token} ${until}`).digest('base64url');

/** Goes with the page that was counted as a view, and lets its film be fetched. */
export function ticketFor(token: string, now: Date): string {
  const until = now.getTime() + LASTS;
  return `${until}.${signed(token, until)}`;
}

export function isTicket(ticket: string | null, token: string, now: Date): boolean {
  const [, until = '', signature = ''] = /^(\d{1,16})\.([\w-]{43})$/.exec(ticket ?? '') ?? [];
  if (signature === '' || Number(until) < now.getTime()) return false;
  return timingSafeEqual(Buffer.from(signature), Buffer.from(signed(token, Number(until))));
}

/** The film of a link, or the part of it that is asked for; null where its file is gone. */
export async function filmAnswer(
  { film, filmType }: Seen,
  { range, look }: { range: string | null; look: boolean },
  headers: Record<string, string>,
): Promise<LinkAnswer | null> {
  if (!film || !filmType) return null;
  const path = filmPath(film);
  const found = await stat(path).catch(() => null);
  if (!found) return null;
  const { size } = found;
  const always = { ...headers, 'Content-Type': filmType, 'Accept-Ranges': 'bytes' };
  const part = rangeOf(range, size);
  if (part === 'beyond') {
    const told = { ...always, 'Content-Range': `bytes */${size}` };
    return { status: 416, headers: told, body: new Uint8Array() };
  }
  const { from, to } = part ?? { from: 0, to: size - 1 };
  return {
    status: part ? 206 : 200,
    headers: {
      ...always,
      'Content-Length': String(to - from + 1),
      ...(part && { 'Content-Range': `bytes ${from}-${to}/${size}` }),
    },
    body: new Uint8Array(),
    ...(!look && { stream: createReadStream(path, { start: from, end: to }) }),
  };
}
