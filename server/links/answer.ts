import { xmlText } from '@/core/keep/xmp';
import { seenBy, type Seen } from './links';

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
  'main{max-width:1200px;margin:auto}img{max-width:100%;height:auto;box-shadow:0 2px 14px #0003}h1{font-size:20px}' +
  '@media(prefers-color-scheme:dark){body{background:#151b1a;color:#e9e6dc}}</style></head><body><main>';

/**
 * The answer to a path below /v/: the page, with the picture in it, or the picture alone.
 * @param look only whether it is there (HEAD): that is no view
 */
export async function answerLink(
  path: string,
  { now = new Date(), look = false }: { now?: Date; look?: boolean } = {},
): Promise<LinkAnswer> {
  const [, token = '', picture] = /^\/v\/([^/.]+)(\.png)?$/.exec(path) ?? [];
  const seen = await seenBy(token, now, look);
  if (!seen) {
    return html(
      404,
      `Nothing here</title>${STYLE}<h1>There is nothing at this address</h1><p>It may have ended, or been taken back.</p></main></body></html>`,
    );
  }
  if (seen.guideId) {
    const type = 'text/html; charset=utf-8';
    const body = new Uint8Array(seen.bytes);
    return { status: 200, headers: { ...headers, 'Content-Type': type }, body };
  }
  if (picture) {
    const body = new Uint8Array(seen.bytes);
    return {
      status: 200,
      headers: { ...headers, 'Content-Type': 'image/png', 'Content-Length': String(body.length) },
      body,
    };
  }
  return html(200, page(seen));
}

/** The picture is part of the page, so that looking once is one view. */
const page = ({ title, description, width, height, bytes }: Seen): string =>
  `${xmlText(title || 'A picture')}</title>${STYLE}` +
  `${title && `<h1>${xmlText(title)}</h1>`}` +
  `<img src="data:image/png;base64,${Buffer.from(bytes).toString('base64')}" width="${width}" height="${height}" alt="${xmlText(description || title || 'A picture')}">` +
  `${description && `<p>${xmlText(description)}</p>`}</main></body></html>`;
