import type { ShotDocument } from '@/core/contracts/document';
import type { ThenStep } from '@/core/contracts/way';
import { contains } from '@/core/geometry/rect';
import { saidOf } from '@/core/keep/saidOf';
import { untouched } from '@/core/shot/document';
import { api, ApiError, messageOf } from '../api/client';
import { dropFromOutbox, putInOutbox, untilSafe, whenStored } from '../outbox/outbox';
import { forget, remember } from '../outbox/memory';
import { browserFolder } from '../keep/browser/folders';
import { keepInBrowser } from '../keep/browser/keep';
import { allowWriting } from '../keep/browser/write';
import { copyPicture, copyText } from '../pictures/clipboard';
import { saveBlob } from '../pictures/saveBlob';
import { paintPng } from '../pictures/pictures';
import { thumbOf } from '../pictures/thumbs';
import { navigate } from '../shell/navigate';
import { amend, dismiss, notify, useNotices } from '../shell/noticeStore';
import { useSettings } from './settingsStore';
import { playShutter } from './sound';
import type { Stilled } from './sources/contract';
import type { Choice } from './takeStore';

export interface Taken {
  stilled: Stilled;
  /** The whole frame, being encoded. */
  png: Promise<Blob>;
  choice: Choice;
  then: readonly ThenStep[];
  /** The pointer comes along as a piece. */
  pointer: boolean;
}

function documentOf({ stilled, choice, pointer }: Taken): ShotDocument {
  const { crop, shape } = choice;
  const piece = pointer ? stilled.pointer?.piece : null;
  const seen = piece && contains(crop, stilled.pointer?.at ?? { x: -1, y: -1 });
  return {
    ...untouched(stilled.picture),
    view: shape ? { crop, shape } : { crop },
    marks: seen ? [piece] : [],
  };
}

/**
 * What follows a confirmed take: into the outbox, and then whatever Then says, in its order. None
 * that fails stops the others.
 */
export function finishTake(taken: Taken): void {
  const { settings } = useSettings.getState();
  const { stilled, png, then, choice } = taken;
  const id = crypto.randomUUID();
  const document = documentOf(taken);
  const { title, provenance, picture } = stilled;
  remember({ id, title, picture, document, provenance });
  const key = `take ${id}`;
  const safe = untilSafe(
    png.then((blob) =>
      putInOutbox({ id, picture: blob, title, provenance, document, size: picture }),
    ),
  );
  const marking = then.some((step) => step.do === 'mark');
  if (marking) navigate(`/shots/${id}`);
  if (settings.sound) playShutter();
  if (settings.notice) showNotice(key, id, title, marking);
  if (choice.remark) tell(key, choice.remark);
  safe.catch((error: unknown) => {
    notify({
      key: `${key} unsafe`,
      tone: 'bad',
      title: 'This shot could not be put aside',
      lines: [
        'The browser’s own store refused it. Copy or download it now; closing this tab would lose it.',
      ],
      reason: messageOf(error),
    });
  });
  // After the picture itself is shown, yet within the time of an answer.
  if (settings.notice && settings.thumbnail) {
    const show = () => void thumb(key, picture, document);
    if (globalThis.document.hidden) show();
    else requestAnimationFrame(show);
  }
  for (const step of then) {
    if (step.do === 'copy') void copy(key, id, picture, document);
    if (step.do === 'keep') void keep(key, id, step.folderId);
    if (step.do === 'link') void link(key, id);
    if (step.do === 'mail') void mail(key, id);
    if (step.do === 'send') void send(key, id, step.remoteId);
    if (step.do === 'here') void keepHere(key, id, step.folderId);
    if (step.do === 'print') void whenStored(id).then(() => navigate(`/print/${id}`));
  }
  void arrive(key, id);
}

function showNotice(key: string, id: string, title: string, marking: boolean): void {
  notify({
    key,
    tone: 'good',
    title,
    lines: [],
    href: `/shots/${id}`,
    action: marking ? undefined : { label: 'Mark', act: () => navigate(`/shots/${id}`) },
    second: {
      label: 'Throw away, take again',
      hint: 'Shift+T',
      act: () => void throwAway(key, id),
    },
  });
}

/** Adds to what the take's notice says; speaks up on its own when notices are off and it is bad. */
function tell(key: string, line: string, bad?: { reason?: string; again: () => void }): void {
  const notice = useNotices.getState().notices.find((n) => n.key === key);
  if (bad) {
    notify({
      key: `${key} ${line}`,
      tone: 'bad',
      title: line,
      lines: ['The shot itself is safe on the Shelf.'],
      reason: bad.reason,
      action: { label: 'Try again', act: bad.again },
    });
  } else if (notice) {
    amend(key, { lines: [...(notice.lines ?? []), line], until: Date.now() + 9000 });
  }
}

async function thumb(key: string, frame: ImageBitmap, { view }: ShotDocument): Promise<void> {
  amend(key, { picture: URL.createObjectURL(await thumbOf(frame, view.crop)) });
}

async function copy(
  key: string,
  id: string,
  frame: ImageBitmap,
  document: ShotDocument,
): Promise<void> {
  try {
    await copyPicture(paintPng(frame, document), () => copyOnDisplay(id));
    tell(key, 'Copied: paste it anywhere');
  } catch (error) {
    tell(key, `Not copied. ${messageOf(error)}`, {
      again: () => void copy(key, id, frame, document),
    });
  }
}

async function link(key: string, id: string): Promise<void> {
  try {
    await whenStored(id);
    const made = await api.makeLink(id, {});
    await copyText(made.openAddress ?? made.address);
    tell(key, 'The link is copied');
  } catch (error) {
    tell(key, `No link. ${messageOf(error)}`, { again: () => void link(key, id) });
  }
}

async function mail(key: string, id: string): Promise<void> {
  try {
    await whenStored(id);
    saveBlob(await api.mail(id, {}), 'picture.eml');
    tell(key, 'The message is saved; open it with your mail program');
  } catch (error) {
    tell(key, `No message. ${messageOf(error)}`, { again: () => void mail(key, id) });
  }
}

async function send(key: string, id: string, remoteId: string): Promise<void> {
  try {
    await whenStored(id);
    tell(key, saidOf(await api.send(id, remoteId)));
  } catch (error) {
    tell(key, `Not sent. ${messageOf(error)}`, { again: () => void send(key, id, remoteId) });
  }
}

async function keepHere(key: string, id: string, folderId: string): Promise<void> {
  try {
    const folder = await browserFolder(folderId);
    if (!folder) throw new Error('Its folder is known to another browser only.');
    await allowWriting(folder);
    await whenStored(id);
    const [shot, formats] = await Promise.all([api.shot(id), api.formats()]);
    const path = await keepInBrowser(shot, folder, formats);
    tell(key, `Kept in ${folder.name}: ${path}`);
  } catch (error) {
    tell(key, `Not kept in a folder. ${messageOf(error)}`, {
      again: () => void keepHere(key, id, folderId),
    });
  }
}

/** The take says where it is once the server has it; trouble is the outbox's to tell. */
async function arrive(key: string, id: string): Promise<void> {
  const stored = await whenStored(id).catch(() => null);
  if (stored) tell(key, 'On the Shelf');
}

/** A page out of sight may not copy; the server, on the same computer, can. */
async function copyOnDisplay(id: string): Promise<boolean> {
  if (!useSettings.getState().settings.displayAllowed) return false;
  await whenStored(id);
  await api.copyOnDisplay(id);
  return true;
}

async function keep(key: string, id: string, folderId: string | null): Promise<void> {
  try {
    await whenStored(id);
    const { folders } = await api.folders();
    const folder = folders.find((f) => (folderId ? f.id === folderId : f.isDefault));
    if (!folder) {
      throw new Error(folderId ? 'Its folder is gone.' : 'No default folder is set up yet.');
    }
    const kept = await api.keep(id, { folderId: folder.id });
    tell(key, `Kept: ${kept.path}`);
  } catch (error) {
    const reason = error instanceof ApiError ? error.reason : undefined;
    dismiss(`${key} keep`);
    tell(key, `Not kept in a folder. ${messageOf(error)}`, {
      reason,
      again: () => void keep(key, id, folderId),
    });
  }
}

/** Bins the shot and takes again, the same way. */
async function throwAway(key: string, id: string): Promise<void> {
  dismiss(key);
  navigate('/take');
  forget(id);
  // Loaded here, since the store of Take itself leads to this file.
  const { startTake } = await import('./takeStore');
  startTake();
  await whenStored(id)
    .then(() => api.bin(id))
    .catch(() => dropFromOutbox(id));
}
