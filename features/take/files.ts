import type { Provenance, SourceName } from '@/core/contracts/provenance';
import { limits } from '@/core/values/limits';
import { asLine } from '@/core/values/text';
import { untouched } from '@/core/document/view';
import { beginEntry, noteOutcome } from '../trail/trail';
import { remember } from '../outbox/memory';
import { putInOutbox, untilSafe, useOutbox, whenStored } from '../outbox/outbox';
import { messageOf } from '../api/ask';
import { navigate } from '../thread/navigate';
import { amend, notify } from '../notices/noticeStore';
import { bringFilm, isFilmFile } from './clip/opened';

type Way = Extract<SourceName, 'pasted' | 'dropped' | 'opened'>;

const verbs: Record<Way, string> = { pasted: 'Pasted', dropped: 'Dropped', opened: 'Opened' };

/** A name a person can read, without its ending; clipboard pictures have none of their own. */
function titleOf(file: File, way: Way): string {
  const stem = file.name.replace(/\.[^.]{1,5}$/, '').trim();
  return (way === 'pasted' && /^image$/i.test(stem)) || stem === ''
    ? `${verbs[way]} ${isFilmFile(file) ? 'clip' : 'picture'}`
    : stem.slice(0, limits.titleLength);
}

/** Brings pictures and films in, one shot each; a single one is opened when `open` says so. */
export async function bringIn(files: readonly File[], way: Way, open: boolean): Promise<void> {
  if (files.length === 0) {
    notify({
      key: 'nothing',
      tone: 'plain',
      title: `There is no picture and no film in what was ${way}.`,
    });
    return;
  }
  const alone = files.length === 1 && open;
  await Promise.all(files.map((file) => bringOne(file, way, alone)));
}

async function bringOne(file: File, way: Way, open: boolean): Promise<void> {
  const id = crypto.randomUUID();
  const title = asLine(titleOf(file, way), limits.titleLength);
  beginEntry(id, title, new Date().toISOString());
  const key = `file ${id}`;
  const provenance: Provenance = {
    source: way,
    takenAt: new Date().toISOString(),
    fileName: asLine(file.name, limits.nameLength) || undefined,
  };
  if (isFilmFile(file)) return bringFilm({ id, title, provenance, file }, key, open);
  if (file.size > limits.pictureBytes) {
    notify({
      key,
      tone: 'bad',
      title: `“${title}” was not taken`,
      lines: ['A picture may have at most 128 MB. The file itself is untouched.'],
    });
    return;
  }
  notify({ key, tone: 'plain', title, lines: ['Being stored …'], stays: true });
  try {
    await untilSafe(id, putInOutbox({ id, title, picture: file, provenance }));
    const whole = whenStored(id);
    // A server that does not answer keeps nobody from marking what this browser can show.
    const early = open && (await isUnreachable(whole));
    const shown = early && (await openEarly({ id, title, provenance }, file, key));
    const stored = await whole;
    amend(key, {
      tone: 'good',
      lines: [`${stored.width} × ${stored.height} px, on the Shelf`],
      picture: `/api/shots/${id}/thumbnail?revision=${stored.revision}`,
      href: `/shots/${id}`,
      action: { label: 'Mark', act: () => navigate(`/shots/${id}`) },
      until: Date.now() + 9000,
    });
    if (open && !shown) navigate(`/shots/${id}`);
  } catch (error) {
    noteOutcome(id, { key: 'file', state: 'failed', said: `Not taken. ${messageOf(error)}` });
    amend(key, {
      tone: 'bad',
      title: `“${title}” was not taken`,
      lines: [messageOf(error), 'It waits below “Last taken”, where you can save or drop it.'],
    });
  }
}

/** Whether a try to reach the server fails before a picture is stored, or refused. */
function isUnreachable(stored: Promise<unknown>): Promise<boolean> {
  if (useOutbox.getState().unreachable) return Promise.resolve(true);
  return new Promise((resolve) => {
    const stop = useOutbox.subscribe(({ unreachable }) => unreachable && resolve(true));
    const done = () => {
      stop();
      resolve(false);
    };
    stored.then(done, done);
  });
}

/** Opens a picture that the server does not have yet. @returns false for one that no browser shows */
async function openEarly(
  shot: { id: string; title: string; provenance: Provenance },
  file: File,
  key: string,
): Promise<boolean> {
  const picture = await createImageBitmap(file).catch(() => null);
  if (!picture) return false;
  remember({ ...shot, picture, document: untouched(picture) });
  amend(key, { lines: ['It waits here until the server is back.'], href: `/shots/${shot.id}` });
  navigate(`/shots/${shot.id}`);
  return true;
}

/** The pictures on the clipboard, asked for by a click. @throws in words for the person */
export async function clipboardFiles(): Promise<File[]> {
  try {
    const items = await navigator.clipboard.read();
    const found = items.map(async (item) => {
      const type = item.types.find((one) => one.startsWith('image/'));
      return type ? new File([await item.getType(type)], 'image.png', { type }) : null;
    });
    return (await Promise.all(found)).filter((file) => file !== null);
  } catch {
    throw new Error(
      'The browser does not let this page look at the clipboard. Press Ctrl V instead.',
    );
  }
}

/** The files in a paste or drop. */
export function filesIn(data: DataTransfer | null): File[] {
  return [...(data?.files ?? [])];
}
