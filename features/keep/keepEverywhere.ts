import type { Copy, Folder } from '@/core/contracts/folder';
import type { FormatFacts } from '@/core/contracts/format';
import type { Link, LinkInput } from '@/core/contracts/link';
import * as places from '@/core/places/list';
import { addressOf } from '@/core/places/link';
import type { Remote, Sending } from '@/core/contracts/remote';
import type { Shot } from '@/core/contracts/shot';
import { leavingDescription, leavingTitle } from '@/core/keep/leaving';
import { xmlText } from '@/core/keep/xmp';
import { ApiError, messageOf } from '../api/ask';
import { api } from '../api/client';
import { copyPicture, copyText } from '../pictures/clipboard';
import { linked } from './places/link';
import { message as written } from './places/mail';
import { sent } from './places/send';
import { wishFor, type Wish } from './wish';
import { readBrowserFolders, type BrowserFolder } from './browser/folders';
import { keepInBrowser } from './browser/keep';
import { allowWriting } from './browser/write';
import type { ClipForm, Places } from './chosenPlaces';

/** What came of one place. */
export interface Result {
  key: string;
  place: string;
  /** What did not happen, where that is not “not kept in” the place. */
  not?: string;
  state: 'working' | 'done' | 'failed';
  /** What happened, in a few words, where it was no file in a folder. */
  said?: string;
  copy?: Copy;
  link?: Link;
  sending?: Sending;
  problem?: string;
  reason?: string;
  /** The shot itself is not there any more. */
  gone?: boolean;
  again: () => void;
}

type Outcome = Pick<Result, 'said' | 'copy' | 'link' | 'sending'>;

interface Job {
  shot: Shot;
  folders: Folder[];
  browserFolders: readonly BrowserFolder[];
  remotes: readonly Remote[];
  formats: readonly FormatFacts[];
  places: Places;
  wish: Wish;
  onResult: (result: Result) => void;
  /** One that was chosen is not there any more. */
  onPlaceGone: (id: string) => void;
}

/**
 * Keeps a shot in every chosen place; one that fails does not stop the others.
 * @returns whether all went well
 */
export async function keepEverywhere(job: Job): Promise<boolean> {
  const { places: chosen } = job;
  const inFolders = chosen.folders.map((id) => keepIn(job, id));
  const done = await Promise.all([
    ...inFolders,
    ...chosen.browser.map((id) => keepHere(job, id)),
    ...chosen.remotes.map((id) => send(job, id)),
    ...(chosen.clipboard ? [copy(job, chosen.clipForm, Promise.all(inFolders))] : []),
    ...(chosen.link ? [link(job)] : []),
    ...(chosen.mail ? [mail(job)] : []),
  ]);
  return done.every(Boolean);
}

async function attempt(
  job: Job,
  facts: Pick<Result, 'key' | 'place' | 'not'>,
  work: () => Promise<Outcome>,
): Promise<boolean> {
  const again = () => void attempt(job, facts, work);
  job.onResult({ ...facts, state: 'working', again });
  try {
    job.onResult({ ...facts, state: 'done', ...(await work()), again });
    return true;
  } catch (error) {
    const { reason, code } = error instanceof ApiError ? error : {};
    const gone = code === 'not-found' && (await isGone(job.shot));
    job.onResult({ ...facts, state: 'failed', problem: messageOf(error), reason, gone, again });
    if (error instanceof PlaceGone) job.onPlaceGone(facts.key);
    return false;
  }
}

class PlaceGone extends Error {}

interface Named {
  id: string;
  name: string;
}

/** Its name as far as it is known. */
const nameOf = (known: readonly Named[], id: string): string =>
  known.find((one) => one.id === id)?.name ?? 'a place chosen before';

/** Who is quicker than a list, or chose what was removed meanwhile, has it asked anew. */
async function found<T extends Named>(
  known: readonly T[],
  id: string,
  ask: () => Promise<readonly T[]>,
): Promise<T> {
  const one = known.find((k) => k.id === id) ?? (await ask()).find((k) => k.id === id);
  if (!one) throw new PlaceGone('It was removed in Setup. Choose another one.');
  return one;
}

const isGone = (shot: Shot): Promise<boolean> =>
  api.shot(shot.id).then(
    () => false,
    (error: unknown) => error instanceof ApiError && error.code === 'not-found',
  );

function keepIn(job: Job, id: string): Promise<boolean> {
  const { pattern } = job.wish;
  return attempt(job, { key: id, place: nameOf(job.folders, id) }, async () => {
    const folder = await found(job.folders, id, async () => (await api.folders()).folders);
    // Facts and look are the folder's own as it is there now, whatever this page has read of it.
    const { facts: _, look: __, ...wish } = wishFor(job.wish, folder);
    const copy = await api.keep(job.shot.id, {
      folderId: id,
      ...wish,
      ...(pattern && { name: pattern }),
    });
    return { copy };
  });
}

/** By this browser, into a folder of the computer it runs on. */
function keepHere(job: Job, id: string): Promise<boolean> {
  return attempt(job, { key: id, place: nameOf(job.browserFolders, id) }, async () => {
    const folder = await found(job.browserFolders, id, readBrowserFolders);
    await allowWriting(folder);
    const path = await keepInBrowser(job.shot, folder, job.formats, job.wish);
    return { said: places.here.said({ folder: folder.name, path }) };
  });
}

/** What could not be sent now waits on the server, which says so. */
function send(job: Job, id: string): Promise<boolean> {
  const place = nameOf(job.remotes, id);
  return attempt(job, { key: id, place, not: `Not sent to ${place}.` }, async () => {
    await found(job.remotes, id, api.remotes);
    const sending = await sent(await api.send(job.shot.id, id));
    return { sending, said: places.send.said(sending) };
  });
}

const altOf = (shot: Shot): string => leavingDescription(shot) ?? leavingTitle(shot);

function copy(job: Job, form: ClipForm, kept: Promise<unknown>): Promise<boolean> {
  return attempt(job, { key: 'clipboard', place: 'Clipboard', not: 'Not copied.' }, () =>
    form === 'path' ? copyPath(job, kept) : copyAs(job, form),
  );
}

/** The path of the newest copy: of this time, where it is kept in a folder, too. */
async function copyPath({ shot }: Job, kept: Promise<unknown>): Promise<Outcome> {
  await kept;
  const [newest] = await api.copies(shot.id);
  if (!newest)
    throw new Error('There is no copy yet. Choose a folder, too, then its path is copied.');
  await copyText(newest.path);
  return { said: 'The path is copied' };
}

async function copyAs(job: Job, form: Exclude<ClipForm, 'path'>): Promise<Outcome> {
  const { shot } = job;
  const made = api.picture(shot.id, { format: 'png' });
  const png = made.then(({ blob }) => blob);
  if (form === 'picture') {
    await copyPicture(png);
    return { said: places.copy.said(null) };
  }
  if (form === 'both') {
    const alt = altOf(shot);
    const { width, height } = await made;
    const html = `<img src="data:image/png;base64,${await toBase64(await png)}" alt="${xmlText(alt)}" width="${width}" height="${height}">`;
    await copyPicture(png, {
      beside: {
        'text/html': new Blob([html], { type: 'text/html' }),
        'text/plain': new Blob([alt], { type: 'text/plain' }),
      },
    });
    return { said: 'Copied, with its description' };
  }
  const link = await api.makeLink(shot.id, linkWish(job));
  const address = `${addressOf(link)}.png`;
  const alt = altOf(shot).replace(/\s+/g, ' ');
  const line =
    form === 'markdown'
      ? `![${alt.replace(/[[\]]/g, '')}](${address})`
      : `<img src="${address}" alt="${xmlText(alt)}">`;
  await copyText(line);
  return { said: 'Copied as a line with a link', link };
}

async function toBase64(blob: Blob): Promise<string> {
  const reader = new FileReader();
  return new Promise((resolve, reject) => {
    reader.onload = () => {
      const { result } = reader;
      resolve(typeof result === 'string' ? (result.split(',')[1] ?? '') : '');
    };
    reader.onerror = () => reject(reader.error ?? new Error('The picture could not be read.'));
    reader.readAsDataURL(blob);
  });
}

const linkWish = ({ places: chosen }: Job): LinkInput => ({
  days: chosen.linkDays,
  mostViews: chosen.linkViews,
});

function link(job: Job): Promise<boolean> {
  return attempt(job, { key: 'link', place: 'a link', not: 'No link was made.' }, async () => {
    const done = await linked(job.shot.id, linkWish(job));
    return { link: done.made, said: places.link.said(done) };
  });
}

function mail(job: Job): Promise<boolean> {
  const { to, subject, drop } = job.places.message;
  return attempt(
    job,
    { key: 'mail', place: 'a message', not: 'No message was made.' },
    async () => {
      const { facts: _, ...wish } = wishFor(job.wish, undefined);
      const message = {
        ...wish,
        to: to.trim(),
        ...(subject.trim() && { subject: subject.trim() }),
      };
      return { said: places.mail.said(await written(job.shot.id, message, drop)) };
    },
  );
}
