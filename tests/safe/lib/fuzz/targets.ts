import sharp from 'sharp';
import { formats } from '@/server/formats';
import { untouched } from '@/core/document/view';
import { everyMark } from '@/tests/lib/marks';
import { below, changedBytes, changedJson, oddText, oddValue, oneOf, type Next } from './odd';

/** One thing to ask. */
export interface Ask {
  method: string;
  path: string;
  headers?: Record<string, string>;
  body?: string | FormData | Uint8Array<ArrayBuffer>;
}

/** What is there to be asked about. */
export interface There {
  shots: string[];
  folders: string[];
  others: string[];
  pictures: Uint8Array[];
  /** The last known revision of each shot. */
  revisions: Map<string, number>;
}

export type Target = (there: There, next: Next) => Ask;

const SIZE = { width: 640, height: 400 };

/** A small picture in every format that is read. */
export async function everyPicture(): Promise<Uint8Array[]> {
  const raw = { width: 60, height: 40, channels: 4 as const };
  const data = Buffer.from(Array.from({ length: 60 * 40 * 4 }, (_, i) => (i * 7) % 256));
  const image = () => sharp(data, { raw });
  const facts = { title: '', description: '', origin: '', takenAt: '', software: '', density: 96 };
  const pixels = { data: new Uint8ClampedArray(data), width: 60, height: 40, opaque: false };
  const shot = { frame: new Uint8Array(), opaque: false, document: untouched(SIZE) };
  const bmp = (depth: string) =>
    formats.bmp.encode(
      { pixels, shot },
      { quality: 85, options: { depth }, background: '#FFFFFF', facts },
    );
  return Promise.all(
    [
      ...[image().png(), image().png({ palette: true }), image().jpeg(), image().webp()],
      ...[image().gif(), image().tiff(), image().avif({ effort: 0 })],
    ].map((one) => one.toBuffer()),
  ).then(async (all) => [...all, await bmp('24'), await bmp('32')]);
}

/** A sent picture that is not quite one. */
export const picture: Target = ({ pictures }, next) => {
  const form = new FormData();
  const bytes = changedBytes(oneOf(next, pictures), next);
  form.set('frame', new Blob([bytes]), oneOf(next, ['frame.png', 'a.bmp', '..', 'x']));
  if (next() < 0.3) form.set('title', oddText(next));
  if (next() < 0.2) form.set('takenAt', oddText(next));
  return { method: 'POST', path: '/api/shots', body: form };
};

/** A document with something wrong, or odd, or large in it. */
export const document: Target = ({ shots, revisions }, next) => {
  const shot = oneOf(next, shots);
  // Mostly little, so that it is stored and painted; sometimes much.
  const share = oneOf(next, [0, 0.0003, 0.0003, 0.001, 0.02]);
  const marks = everyMark.filter(() => next() < 0.3);
  const whole = { ...untouched(SIZE), marks, ...(next() < 0.2 && { description: oddText(next) }) };
  const body = changedJson({ document: whole, revision: revisions.get(shot) ?? 1 }, next, share);
  return json('PUT', `/api/shots/${shot}`, body);
};

/** A pattern for names, tried by keeping. */
export const pattern: Target = ({ shots, folders }, next) => {
  const name = oddText(next);
  if (next() < 0.3) return json('PATCH', `/api/folders/${oneOf(next, folders)}`, { pattern: name });
  const body = { folderId: oneOf(next, folders), name };
  return json('POST', `/api/shots/${oneOf(next, shots)}/copies`, body);
};

const json = (method: string, path: string, body: unknown): Ask => ({
  method,
  path,
  headers: { 'Content-Type': 'application/json' },
  body: JSON.stringify(body),
});

const ofShots = [
  ...['', '/frame', '/thumbnail', '/picture', '/copies', '/links', '/sendings', '/rest', '/steps'],
  ...['/likeness', '/readable', '/mail', '/bin', '/restore', '/duplicates', '/tags', '/words'],
];
const plain = [
  ...['shots', 'folders', 'folders/places', 'settings', 'routines', 'links', 'sendings', 'remotes'],
  ...['formats', 'programs', 'mail-drop', 'display', 'display/stills', 'display/shots', 'health'],
  ...['share', 'icons/192', 'icons/x', 'mail-drop/x', 'recognition/x', 'display/clipboard'],
  ...['tags', 'searches', 'words', 'shots/count', 'shots/days', 'shots/tags'],
];
const fields = [
  ...['format', 'quality', 'width', 'height', 'longest', 'percent', 'maxBytes', 'density', 'same'],
  ...['before', 'after', 'limit', 'bin', 'path', 'background', 'words', 'origin', 'effort', 'r'],
  ...['q', 'order', 'month'],
];
/** Bodies as the interface sends them. */
const bodies: readonly unknown[] = [
  { title: 'Bed 7', files: true },
  { name: 'Beds', path: '/tmp/x', pattern: '{title} {n}', make: true, format: 'png', quality: 80 },
  { format: 'jpeg', quality: 70, width: 90, maxBytes: 9_000, options: {} },
  { days: 1, mostViews: 1, words: true },
  { to: 'kim@pond.example', subject: 'Beds', text: 'Look', format: 'png', drop: true },
  { revision: 1, others: true },
  { way: { source: 'desk', delay: 3 }, readableFrom: 6, keys: { take: 'Ctrl+K' } },
  { name: 'Morning', key: 'F7', way: { kind: 'region' }, ids: [] },
  { state: 'stopped' },
  { tags: ['Beds', 'Faults'] },
  { name: 'Beds', colour: '#0072B2', merge: true },
  { name: 'Orders', query: 'order kept:none', order: 'fitness' },
  { shots: ['00000000-0000-4000-8000-000000000000'], add: ['Beds'], remove: [] },
];

/** Any address, asked in any way. */
export const request: Target = (there, next) => {
  const ids = [...there.shots, ...there.folders, ...there.others];
  const id =
    next() < 0.8
      ? oneOf(next, ids)
      : encodeURIComponent(oddText(next).replace(/\p{Surrogate}/gu, ''));
  const path = oneOf<() => string>(next, [
    () => `/api/shots/${id}${oneOf(next, ofShots)}`,
    () =>
      `/api/${oneOf(next, ['folders', 'routines', 'links', 'sendings', 'remotes', 'tags', 'searches'])}/${id}`,
    () => `/api/${oneOf(next, plain)}`,
    () =>
      `/${oneOf(next, ['v/', 'shots/', 'setup/', '_next/static/', 'fonts/'])}${id.slice(0, 2_000)}`,
  ])();
  const method = oneOf(next, ['GET', 'GET', 'POST', 'PATCH', 'PUT', 'DELETE', 'HEAD', 'OPTIONS']);
  const query = new URLSearchParams();
  while (next() < 0.4) query.append(oneOf(next, fields), oddText(next).slice(0, 500));
  while (next() < 0.3) query.append(oneOf(next, fields), String(oddValue(next)).slice(0, 200));
  const ask = { method, path: query.size ? `${path}?${query.toString()}` : path };
  // A shot that is erased, or a folder, would leave the rest with less to do.
  if (method === 'DELETE' && ids.includes(id)) return { ...ask, method: 'GET' };
  if (['GET', 'HEAD', 'OPTIONS'].includes(method)) return ask;
  if (next() < 0.1) {
    return {
      ...ask,
      headers: { 'Content-Type': oddText(next).replace(/[^ -~]/g, '') || 'x' },
      body: oddText(next),
    };
  }
  return { ...json(method, ask.path, changedJson(oneOf(next, bodies), next, 0.15)) };
};

/** A search, as odd as what anybody may type or paste. */
export const searched: Target = (_, next) => {
  const words = ['pond', 'tag:', '"', '-', 'on:', 'kept:none', 'size:>', 'since:', '(', 'E-207'];
  let q = '';
  while (next() < 0.8)
    q += oneOf(next, [() => oddText(next), () => oneOf(next, words), () => ' '])();
  // Half of a surrogate pair has no address.
  const query = new URLSearchParams({ q: q.slice(0, 12_000).toWellFormed() });
  if (next() < 0.3) query.set('order', 'fitness');
  const path = oneOf(next, ['/api/shots', '/api/shots', '/api/shots/count']);
  return { method: 'GET', path: `${path}?${query.toString()}` };
};

/** A stored document painted and written in every way. */
export const painted: Target = ({ shots }, next) => {
  const query = new URLSearchParams({ format: oneOf(next, Object.keys(formats)) });
  if (next() < 0.5) query.set('quality', String(1 + below(next, 100)));
  if (next() < 0.3)
    query.set(oneOf(next, ['width', 'longest', 'percent']), String(1 + below(next, 300)));
  return { method: 'GET', path: `/api/shots/${oneOf(next, shots)}/picture?${query.toString()}` };
};
