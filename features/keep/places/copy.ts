import { Copy } from 'lucide-react';
import { api } from '../../api/client';
import { whenStored } from '../../outbox/outbox';
import { copyPicture } from '../../pictures/clipboard';
import { paintPng } from '../../pictures/pictures';
import { useSettings } from '../../settings/settingsStore';
import { onServer, type Handed, type PagePlace } from './contract';

export const copy: PagePlace<'copy'> = {
  icon: Copy,
  async do(shot, _, goOn) {
    // While the frame is at hand, nobody waits for the server.
    if (!shot.fresh) await onServer(shot);
    await copyPicture(pngOf(shot), { otherwise: () => copyOnDisplay(shot.id), waits: goOn });
    return null;
  },
};

/** The picture for the clipboard, in the size of the way. */
async function pngOf({ id, fresh, leaves }: Handed): Promise<Blob> {
  // A closed frame has no size: other takes came in between.
  // What a caption says is put together where all of the shot is known.
  const isCaptioned = fresh?.document.finish?.surround?.caption !== undefined;
  if (fresh && fresh.frame.width > 0 && !leaves.size && !isCaptioned) {
    return paintPng(fresh.frame, fresh.document);
  }
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
