import { messageOf } from '../../api/ask';
import { copyPicture } from '../../pictures/clipboard';
import { paintPng } from '../../pictures/pictures';
import { notify } from '../../notices/noticeStore';
import { copyMarks } from './arrange';
import { captionTells, leavingDocument } from '../session/leaving';
import { session, openId } from '../session/session';
import { allStandOut } from '../recognise/standsOut';

/** The shot as it is now onto the clipboard. */
export async function copyShot(): Promise<void> {
  const { frame, id } = session();
  const document = leavingDocument();
  const painted = async () => {
    await allStandOut();
    return paintPng(frame, openId() === id ? leavingDocument() : document);
  };
  try {
    await copyPicture(painted());
    notify({
      key: `copied ${id}`,
      tone: 'good',
      title: 'Copied',
      lines: [
        'Paste the picture anywhere.',
        ...(captionTells() ? ['Its caption leaves out where it is from.'] : []),
      ],
    });
  } catch (error) {
    notCopied(id, error, copyShot);
  }
}

/** The selected marks onto the clipboard. */
export async function copyChosen(): Promise<void> {
  const { id } = session();
  await copyMarks().catch((error: unknown) => notCopied(id, error, copyChosen));
}

function notCopied(id: string, error: unknown, again: () => Promise<void>): void {
  notify({
    key: `copied ${id}`,
    tone: 'bad',
    title: 'Not copied',
    lines: [messageOf(error)],
    action: { label: 'Try again', act: () => void again() },
  });
}
