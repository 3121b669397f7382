import type { IncomingMessage } from 'node:http';
import { PassThrough, Readable } from 'node:stream';
import { finished } from 'node:stream/promises';
import { xmlText } from '@/core/keep/xmp';
import { limits } from '@/core/values/limits';
import { asLine } from '@/core/values/text';
import { countBodies } from '../http/body';
import { Fault } from '../base/fault';
import { readForm } from '../http/form';
import { html, STYLE, type LinkAnswer } from '../links/answer';
import { storeShot } from '../shots/store';
import { letIn, whyNot } from './offers';

const MB = Math.floor(limits.pictureBytes / 1_000_000);

const FORM =
  '<style>input,button{font:inherit;min-height:48px;max-width:100%}button{padding:0 28px;border:1px solid;border-radius:7px;background:#f2b233;color:#1c2b2a;font-weight:bold}</style>' +
  '<h1>Send a picture to the computer</h1>' +
  '<form method="post" enctype="multipart/form-data">' +
  '<p><label for="p">Photograph something, or choose a picture.</label></p>' +
  '<p><input id="p" type="file" name="picture" accept="image/jpeg,image/png,image/webp" required></p>' +
  '<p><button>Send it</button></p></form>' +
  `<p>One picture of at most ${MB} MB. Nothing else can be reached from here.</p>`;

const page = (status: number, title: string, body: string): LinkAnswer =>
  html(
    status,
    `${xmlText(title)}</title>${STYLE}${body}</main></body></html>`,
    "form-action 'self'",
  );

const said = (status: number, title: string, words: string, again = ''): LinkAnswer =>
  page(status, title, `<h1>${xmlText(title)}</h1><p role="status">${xmlText(words)}</p>${again}`);

/** The answer to /p/…, where one picture of a phone comes in. */
export async function answerPhone(path: string, request: IncomingMessage): Promise<LinkAnswer> {
  const token = /^\/p\/([\w-]{1,64})$/.exec(path)?.[1] ?? '';
  const refused = whyNot(token);
  if (refused) {
    // Whoever was given this address hears why; nobody else is listened to.
    if (request.method === 'POST' && refused.status !== 404) await heardOut(request);
    return said(refused.status, 'Not from here', refused.message);
  }
  if (request.method !== 'POST') return page(200, 'Send a picture', FORM);
  try {
    await letIn(token, () => countBodies(() => stored(request)));
    return said(200, 'It is there', 'The picture is on the computer now. You can close this page.');
  } catch (error) {
    if (!(error instanceof Fault)) throw error;
    await heardOut(request);
    return said(error.status, 'Not sent', error.message, error.status === 410 ? '' : FORM);
  }
}

/** More is not listened to, bytes. */
const MOST_HEARD = 4 * limits.formBytes;

/** Lets the rest of a request go by: a phone that still sends would not see the answer. */
async function heardOut(request: IncomingMessage): Promise<void> {
  if (request.complete || request.destroyed) return;
  let heard = 0;
  request.unpipe();
  request.on('data', (piece: Buffer) => {
    heard += piece.length;
    if (heard > MOST_HEARD) request.destroy();
  });
  request.resume();
  await finished(request).catch(() => undefined);
}

/** The picture of the form as a shot. @throws Fault 4xx */
async function stored(request: IncomingMessage): Promise<string> {
  const body = request.pipe(new PassThrough());
  request.once('close', () => request.complete || body.destroy(new Error('The phone left.')));
  const form = await readForm(
    new Request('http://phone/', {
      method: 'POST',
      headers: { 'content-type': request.headers['content-type'] ?? '', ...lengthOf(request) },
      body: Readable.toWeb(body) as ReadableStream<Uint8Array>,
      duplex: 'half',
    } as RequestInit),
  );
  const [picture] = form.files('picture');
  if (!picture || picture.bytes.length === 0) {
    throw new Fault(400, 'no-picture', 'No picture was chosen.');
  }
  const name = asLine(picture.name, limits.nameLength);
  const { id } = await storeShot({
    picture: picture.bytes,
    provenance: {
      source: 'opened',
      takenAt: new Date().toISOString(),
      ...(name && { fileName: name }),
    },
  });
  return id;
}

const lengthOf = ({ headers }: IncomingMessage): Record<string, string> =>
  headers['content-length'] ? { 'content-length': headers['content-length'] } : {};
