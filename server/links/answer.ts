import { xmlText } from '@/core/keep/xmp';
import type { Readable } from 'node:stream';
import { filmAnswer, isTicket, ticketFor } from './film';
import { filmBehind, seenBy, type Seen } from './links';

/** What somebody gets who follows a link: strict, and alike whether there never was one or it ended. */
const headers = {
  'Cache-Control': 'no-store',
  'Content-Security-Policy':
    "default-src 'none'; img-src data:; style-src 'unsafe-inline'; frame-ancestors 'none'; base-uri 'none'",
  'Cross-Origin-Resource-Policy': 'same-origin',
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Referrer-Policy': 'no-referrer',
  'X-Content-Type-Options': 'nosniff',
  'X-Robots-Tag': 'noindex, nofollow',
  'X-Frame-Options': 'DENY',
};

export interface LinkAnswer {
  status: number;
  headers: Record<string, string>;
  body: Uint8Array;
  /** In its place, what is read as it is sent. */
  stream?: Readable;
}

/**
 * A page of the second door, begun up to its title.
 * @param forms the policy for forms: none go anywhere unless said
 */
export const html = (status: number, body: string, forms = "form-action 'none'"): LinkAnswer => ({
  status,
  headers: {
    ...headers,
    'Content-Security-Policy': `${headers['Content-Security-Policy']}; ${forms}`,
    'Content-Type': 'text/html; charset=utf-8',
  },
  body: Buffer.from(
    `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${body}`,
    'utf8',
  ),
});

export const STYLE =
  '<style>:root{color-scheme:light dark}body{margin:0;padding:24px;background:#efece3;color:#1c2b2a;font:16px/1.5 sans-serif}' +
  'main{max-width:1200px;margin:auto}img,video{max-width:100%;height:auto;box-shadow:0 2px 14px #0003}video{width:auto;max-height:80vh}h1{font-size:20px}' +
  '@media(prefers-color-scheme:dark){body{background:#151b1a;color:#e9e6dc}}</style></head><body><main>';

const nothing = (): LinkAnswer =>
  html(
    404,
    `Nothing here</title>${STYLE}<h1>There is nothing at this address</h1><p>It may have ended, or been taken back.</p></main></body></html>`,
  );

interface Asked {
  now?: Date;
  /** Only whether it is there (HEAD): that is no view. */
  look?: boolean;
  /** Which part of a film is asked for, as a header says it. */
  range?: string | null;
}

/**
 * The answer to an address below /v/: the page, with the picture in it, or the picture alone; the
 * film of a page that was seen.
 * @param address its path, and what follows it
 */
export async function answerLink(
  address: string,
  { now = new Date(), look = false, range = null }: Asked = {},
): Promise<LinkAnswer> {
  const [path = '', query = ''] = address.split('?');
  const ticket = new URLSearchParams(query).get('seen');
  const [, token = '', what] = /^\/v\/([^/.]+)(\.png|\.film)?$/.exec(path) ?? [];
  if (what === '.film') {
    const behind = isTicket(ticket, token, now) ? await filmBehind(token, now) : null;
    return (behind && (await filmAnswer(behind, { range, look }, headers))) ?? nothing();
  }
  const seen = await seenBy(token, now, look);
  if (!seen) return nothing();
  if (seen.guideId) {
    const type = 'text/html; charset=utf-8';
    const policy = `${headers['Content-Security-Policy']}; media-src data:`;
    const said = { 'Content-Type': type, 'Content-Security-Policy': policy };
    return { status: 200, headers: { ...headers, ...said }, body: new Uint8Array(seen.bytes) };
  }
  if (what === '.png') {
    const body = new Uint8Array(seen.bytes);
    return {
      status: 200,
      headers: { ...headers, 'Content-Type': 'image/png', 'Content-Length': String(body.length) },
      body,
    };
  }
  if (seen.film) return filmPage(seen, `/v/${token}.film?seen=${ticketFor(token, now)}`);
  return html(200, page(seen));
}

const dataOf = (png: Uint8Array): string =>
  `data:image/png;base64,${Buffer.from(png).toString('base64')}`;

const around = ({ title, description }: Seen, called: string, shown: string): string =>
  `${xmlText(title || called)}</title>${STYLE}` +
  `${title && `<h1>${xmlText(title)}</h1>`}${shown}` +
  `${description && `<p>${xmlText(description)}</p>`}</main></body></html>`;

/** The picture is part of the page, so that looking once is one view. */
const page = (seen: Seen): string => {
  const { title, description, width, height, bytes } = seen;
  const alt = xmlText(description || title || 'A picture');
  const shown = `<img src="${dataOf(bytes)}" width="${width}" height="${height}" alt="${alt}">`;
  return around(seen, 'A picture', shown);
};

/** A film, by the browser's own player; it is fetched in pieces with what the page was given. */
function filmPage(seen: Seen, address: string): LinkAnswer {
  const { title, description, width, height, bytes } = seen;
  const label = xmlText(description || title || 'A clip');
  const shown = `<video src="${address}" poster="${dataOf(bytes)}" width="${width}" height="${height}" controls playsinline aria-label="${label}"></video>`;
  return html(200, around(seen, 'A clip', shown), "media-src 'self'; form-action 'none'");
}
