import { linkInputSchema } from '@/core/contracts/link';
import { mailInputSchema } from '@/core/contracts/mail';
import type { ThenStep, Way } from '@/core/contracts/way';
import { saidOf } from '@/core/keep/saidOf';
import { listFolders } from '../folders/folders';
import { keepCopy } from '../keep/copies';
import { makeLink } from '../links/links';
import { dropMessage } from '../mail/drop';
import { messageFor } from '../mail/message';
import { openCopy } from '../programs/programs';
import { sendTo } from '../remote/sendings';
import { tagMany } from '../tags/tags';
import { copyToDisplay } from './clipboard';

/** One thing done with the shot; what fails is said and stops nothing else. */
export async function doStep(step: ThenStep, shot: string, way: Way): Promise<string> {
  const size = way.size ?? {};
  const leaves = { ...size, ...(way.format && { format: way.format }) };
  try {
    if (step.do === 'mark') return 'Open in Mark';
    if (step.do === 'keepAsk') return 'Keep asks for its name';
    if (step.do === 'copy') {
      await copyToDisplay(shot, size);
      return COPIED;
    }
    if (step.do === 'link') {
      const { address, openAddress } = await makeLink(shot, linkInputSchema.parse({}));
      return `Link: ${openAddress ?? address}`;
    }
    if (step.do === 'mail') {
      const { bytes } = await messageFor(shot, mailInputSchema.parse(leaves));
      await dropMessage(shot, bytes);
      return 'A message lies in the mail drop';
    }
    if (step.do === 'print') return 'Print it from Rezzik; it is on the Shelf';
    if (step.do === 'here') return 'Its folder is the browser’s: keep it from Rezzik’s page';
    if (step.do === 'tag') {
      await tagMany({ shots: [shot], add: step.tags, remove: [] });
      return `Tagged: ${step.tags.join(', ')}`;
    }
    if (step.do === 'send') return saidOf(await sendTo(shot, step.remoteId));
    const folders = await listFolders();
    const wanted = step.do === 'keep' ? step.folderId : null;
    const folder = folders.find((f) => (wanted ? f.id === wanted : f.isDefault));
    if (!folder) return 'Not kept: its folder is gone. The shot is safe on the Shelf.';
    const { id, path } = await keepCopy(shot, { folderId: folder.id, ...leaves });
    if (step.do !== 'program') return `Kept: ${path}`;
    await openCopy(id, step.program);
    return `Kept, and opened in ${step.program}: ${path}`;
  } catch (error) {
    return notDone(step.do, error);
  }
}

export const COPIED = 'Copied: paste it anywhere';

export function notDone(step: ThenStep['do'], error: unknown): string {
  const words = error instanceof Error ? error.message : String(error);
  const what = {
    copy: 'Not copied',
    link: 'No link',
    mail: 'No message',
    send: 'Not sent',
    tag: 'Not tagged',
  } as const;
  const said = step in what ? what[step as keyof typeof what] : 'Not kept';
  return `${said}. ${words} The shot is safe on the Shelf.`;
}
