import type { ShotDocument } from '@/core/document/document';
import type { Folder } from '@/core/contracts/folder';
import type { ThenStep, Way } from '@/core/contracts/way';
import { sentWords } from '../keep/sentWords';
import { api } from '../api/client';
import { browserFolder } from '../keep/browser/folders';
import { keepInBrowser } from '../keep/browser/keep';
import { allowWriting } from '../keep/browser/write';
import { noWish } from '../keep/wish';
import { whenStored } from '../outbox/outbox';
import { copyPicture, copyText } from '../pictures/clipboard';
import { paintPng } from '../pictures/pictures';
import { saveBlob } from '../pictures/saveBlob';
import { navigate } from '../thread/navigate';
import { useSettings } from '../settings/settingsStore';

/** What a way says of the picture that leaves: its format and size. */
export type Leaves = Pick<Way, 'format' | 'size'>;

/** A shot that something is done with; its frame is at hand only just after the take. */
export interface Handed {
  id: string;
  leaves: Leaves;
  fresh?: { frame: ImageBitmap; document: ShotDocument };
}

type Do<S extends ThenStep['do']> = (
  shot: Handed,
  step: Extract<ThenStep, { do: S }>,
) => Promise<string>;

/** How each step is done; what it says once it is, or throws words that say why not. */
const ways: { [S in ThenStep['do']]: Do<S> } = {
  mark: ({ id }) => {
    navigate(`/shots/${id}`);
    return Promise.resolve('Open in Mark');
  },
  copy: async (shot) => {
    await copyPicture(pngOf(shot), () => copyOnDisplay(shot.id));
    return 'Copied: paste it anywhere';
  },
  keep: async (shot, { folderId }) => {
    const { path } = await keepIn(shot, folderId);
    return `Kept: ${path}`;
  },
  keepAsk: async ({ id }) => {
    await whenStored(id);
    navigate(`/shots/${id}/keep`, 'push', '?ask');
    return 'Keep asks for its name';
  },
  program: async (shot, { program }) => {
    const copy = await keepIn(shot, null);
    await api.openCopy(copy.id, program);
    return `Kept, and opened in ${program}: ${copy.path}`;
  },
  link: async ({ id }) => {
    const made = await api.makeLink(id, {});
    await copyText(made.openAddress ?? made.address);
    return 'The link is copied';
  },
  mail: async ({ id, leaves }) => {
    const { blob, name } = await api.mail(id, { ...leaves.size, ...formatOf(leaves) });
    saveBlob(blob, name);
    return 'The message is saved; open it with your mail program';
  },
  send: async ({ id }, { remoteId }) => sentWords(await api.send(id, remoteId)),
  here: async ({ id, leaves }, { folderId }) => {
    const folder = await browserFolder(folderId);
    if (!folder) throw new Error('Its folder is known to another browser only.');
    await allowWriting(folder);
    const [shot, formats] = await Promise.all([api.shot(id), api.formats()]);
    const wish = { ...noWish, format: leaves.format, size: leaves.size };
    return `Kept in ${folder.name}: ${await keepInBrowser(shot, folder, formats, wish)}`;
  },
  tag: async ({ id }, { tags }) => {
    await api.tagMany([id], { add: tags });
    return `Tagged: ${tags.join(', ')}`;
  },
  print: ({ id }) => {
    navigate(`/print/${id}`);
    return Promise.resolve('Ready to print');
  },
};

/** What each step says when it fails, before the reason. */
export const failing: Record<ThenStep['do'], string> = {
  mark: 'Not opened.',
  copy: 'Not copied.',
  keep: 'Not kept in a folder.',
  keepAsk: 'Keep could not be opened.',
  program: 'Not handed on.',
  link: 'No link.',
  mail: 'No message.',
  send: 'Not sent.',
  here: 'Not kept in a folder.',
  print: 'Not printed.',
  tag: 'Not tagged.',
};

/** Does one thing with a shot. @returns what to say. @throws Error in words for the person */
export async function doStep(step: ThenStep, shot: Handed): Promise<string> {
  // Copying and marking need not wait for the server, while the frame is at hand.
  const soon = step.do === 'mark' || (step.do === 'copy' && shot.fresh !== undefined);
  if (!soon) await onServer(shot);
  const act = ways[step.do] as Do<ThenStep['do']>;
  return act(shot, step);
}

/** A fresh take may still be on its way; an older one is there. */
const onServer = async ({ id, fresh }: Handed): Promise<unknown> =>
  fresh ? whenStored(id) : undefined;

const formatOf = ({ format }: Leaves) => (format ? { format } : {});

async function keepIn({ id, leaves }: Handed, folderId: string | null) {
  const { folders } = await api.folders();
  const fits = (f: Folder) => (folderId ? f.id === folderId : f.isDefault);
  const folder = folders.find(fits);
  if (!folder) {
    throw new Error(folderId ? 'Its folder is gone.' : 'No default folder is set up yet.');
  }
  return api.keep(id, { folderId: folder.id, ...leaves.size, ...formatOf(leaves) });
}

/** The picture for the clipboard, in the size of the way. */
async function pngOf({ id, fresh, leaves }: Handed): Promise<Blob> {
  if (fresh && !leaves.size) return paintPng(fresh.frame, fresh.document);
  if (fresh) await whenStored(id);
  return (await api.picture(id, { format: 'png', ...leaves.size })).blob;
}

/** A page out of sight may not copy; the server, on the same computer, can. */
async function copyOnDisplay(id: string): Promise<boolean> {
  if (!useSettings.getState().settings.displayAllowed) return false;
  await whenStored(id);
  await api.copyOnDisplay(id);
  return true;
}
