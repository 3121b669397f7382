import { messageOf } from '../api/client';
import { copyPicture } from '../pictures/clipboard';
import { paintPng } from '../pictures/pictures';
import { notify } from '../shell/noticeStore';
import { copyMarks } from './arrange';
import { session } from './session';
import { allStandOut } from './standsOut';

/** The shot as it is now onto the clipboard. */
export async function copyShot(): Promise<void> {
  const { frame, id } = session();
  const painted = async () => {
    await allStandOut();
    return paintPng(frame, session().history.document);
  };
  try {
    await copyPicture(painted());
    notify({
      key: `copied ${id}`,
      tone: 'good',
      title: 'Copied',
      lines: ['Paste the picture anywhere.'],
    });
  } catch (error) {
    notCopied(error);
  }
}

/** The selected marks onto the clipboard. */
export const copyChosen = (): Promise<void> => copyMarks().catch(notCopied);

function notCopied(error: unknown): void {
  notify({
    key: `copied ${session().id}`,
    tone: 'bad',
    title: 'Not copied',
    lines: [messageOf(error)],
    action: { label: 'Try again', act: () => void copyShot() },
  });
}
