import { ApiError, messageOf } from '../../api/ask';
import { api } from '../../api/client';
import { whenStored } from '../../outbox/outbox';
import { recall } from '../../outbox/memory';
import { notify } from '../../notices/noticeStore';
import { session } from '../session/session';
import { allStandOut } from '../recognise/standsOut';
import { whenSettled } from '../../outbox/settling';

/** Keeps the open shot in the default folder, with its last change, without leaving Mark. */
export async function keepUsual(): Promise<void> {
  const { id } = session();
  const key = `kept ${id}`;
  try {
    // A shot that was just taken may still be on its way.
    if (recall(id)) await Promise.race([whenStored(id), api.shot(id)]).catch(() => whenStored(id));
    await allStandOut();
    await whenSettled(id);
    const { folders } = await api.folders();
    const folder = folders.find((f) => f.isDefault);
    if (!folder) throw new Error('No default folder is set up yet. Make one in Setup › Folders.');
    const { path } = await api.keep(id, { folderId: folder.id });
    notify({ key, tone: 'good', title: `Kept in ${folder.name}`, lines: [path] });
  } catch (error) {
    notify({
      key,
      tone: 'bad',
      title: 'Not kept',
      lines: [messageOf(error), 'The shot itself is safe on the Shelf.'],
      reason: error instanceof ApiError ? error.reason : undefined,
      action: { label: 'Try again', act: () => void keepUsual() },
    });
  }
}
