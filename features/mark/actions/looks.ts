import { lookOf, withLook } from '@/core/document/look';
import type { Look } from '@/core/contracts/look';
import { messageOf } from '../../api/ask';
import { api } from '../../api/client';
import { readLooks } from '../../looks/lookStore';
import { dismiss, notify } from '../../notices/noticeStore';
import { changeDocument } from '../session/changes';
import { session, update } from '../session/session';

/** Gives a look to the open shot, in one step of undo. */
export function giveHere(look: Look): void {
  const { finish, pictures } = withLook(session().history.document, look);
  update({ before: false });
  changeDocument(`Look “${look.name}”`, (draft) => {
    if (finish) draft.finish = finish;
    if (pictures) draft.pictures = pictures;
  });
}

/** Nothing is done to the picture as a whole any more. */
export function takeLookOff(): void {
  changeDocument('No look', (draft) => {
    delete draft.finish;
  });
}

const NOTHING = 'Nothing is done to this picture yet: adjust or surround it first.';

/** What went wrong is said; true when nothing did. */
async function attempt(title: string, work: () => Promise<unknown>): Promise<boolean> {
  try {
    await work();
    await readLooks();
    return true;
  } catch (error) {
    notify({ key: 'look', tone: 'bad', title, lines: [messageOf(error)] });
    return false;
  }
}

/** Makes a look of what is done to the open shot. */
export function keepAsLook(name: string): Promise<boolean> {
  const look = lookOf(session().history.document);
  return attempt('No look was made', async () => {
    if (!look) throw new Error(NOTHING);
    await api.addLook({ name, ...look });
  });
}

/** The look is from now on what is done to the open shot. */
export async function replaceLook(before: Look): Promise<void> {
  const { id, name, finish, pictures } = before;
  const look = lookOf(session().history.document);
  const kept = `“${name}” stays as it was`;
  const done = await attempt(kept, async () => {
    if (!look) throw new Error(NOTHING);
    await api.changeLook(id, look);
  });
  if (!done) return;
  const back = async () => {
    dismiss('look');
    await attempt(`“${name}” stays as here`, () => api.changeLook(id, { finish, pictures }));
  };
  notify({
    key: 'look',
    tone: 'good',
    title: `“${name}” is now as here`,
    lines: ['Shots that have it stay as they are.'],
    action: { label: 'As it was', act: () => void back() },
  });
}

export const renameLook = ({ id }: Look, name: string): Promise<boolean> =>
  attempt('Not renamed', () => api.changeLook(id, { name }));

export const setLookKey = ({ id }: Look, key: string | null): Promise<boolean> =>
  attempt('The key stays as it was', () => api.changeLook(id, { key }));

export const removeLook = ({ id, name }: Look): Promise<boolean> =>
  attempt(`“${name}” stays`, () => api.removeLook(id));
