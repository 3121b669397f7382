import { useEffect, useEffectEvent } from 'react';
import {
  adjustments,
  filterOf,
  withAmount,
  type Adjust,
  type AdjustmentName,
} from '@/core/finish/adjust/adjust';
import { withFinish } from '@/core/finish/finish';
import { messageOf } from '../../api/ask';
import { notify } from '../../notices/noticeStore';
import { adjustPicture } from '../../pictures/pictures';
import { changeDocument } from '../session/changes';
import { useDocument } from '../session/document';
import { session, update } from '../session/session';

const currentAdjust = (): Adjust | undefined => session().history.document.finish?.adjust;

/** The shot that was adjusted here and whose marks have not been looked at since. */
let freshOf: string | null = null;

function setAdjust(adjust: Adjust | undefined, label: string, joins = ''): void {
  freshOf = session().id;
  // Whoever adjusts wants to see it.
  update({ before: false });
  changeDocument(
    label,
    (draft) => {
      const finish = withFinish(draft.finish, { adjust });
      if (finish) draft.finish = finish;
      else delete draft.finish;
    },
    joins,
  );
}

/** Another amount of one adjustment; while a slider is pulled, all of it is one step of undo. */
export const setAmount = (name: AdjustmentName, amount: number): void =>
  setAdjust(withAmount(currentAdjust(), name, amount), adjustments[name].label, `adjust ${name}`);

/** Whether the picture under the marks is adjusted, or all that leaves. */
export function setAdjusted(on: Adjust['on']): void {
  const adjust = currentAdjust();
  if (adjust) setAdjust({ ...adjust, on }, 'What is adjusted');
}

export const unadjust = (): void => setAdjust(undefined, 'Nothing adjusted');

/** What of it lies in the picture that marks lie on; what is on all is seen through a filter. */
function inPicture(adjust: Adjust | undefined): Adjust | undefined {
  if (adjust?.on !== 'all') return adjust;
  return adjust.sharpened ? { on: 'picture', sharpened: adjust.sharpened } : undefined;
}

/** Of which picture the adjusted ones were made, and how. */
const made = new WeakMap<ImageBitmap, { of: ImageBitmap; how: string }>();

function isMade(picture: ImageBitmap, of: ImageBitmap, adjust: Adjust | undefined): boolean {
  const known = made.get(picture);
  return adjust ? known?.of === of && known.how === JSON.stringify(adjust) : picture === of;
}

/** What is drawn as the picture now, and the filters that stand in for what is not worked out yet. */
export interface Adjusted {
  picture: ImageBitmap;
  /** Over the picture alone. */
  filter: string;
  /** Over picture and marks. */
  over: string;
}

/** The picture as it is to be seen at once. @param before as if nothing were adjusted */
export function seenAdjusted(
  picture: ImageBitmap,
  plain: ImageBitmap,
  adjust: Adjust | undefined,
  before: boolean,
): Adjusted {
  if (before || !adjust) return { picture: plain, filter: '', over: '' };
  const over = adjust.on === 'all' ? filterOf(adjust) : '';
  const own = inPicture(adjust);
  if (isMade(picture, plain, own)) return { picture, filter: '', over };
  return { picture: plain, filter: filterOf(own), over };
}

/** After the last change of an amount, before the worker is asked, ms. */
const REST = 120;

/**
 * Keeps the picture that marks lie on adjusted as the document says, also through undo.
 * @param onFresh is told when a picture is there that was adjusted anew, not one that was so before
 */
export function useAdjustedPicture(onFresh: () => void): void {
  const plain = useDocument((s) => s.plain);
  const adjust = useDocument((s) => s.history.document.finish?.adjust);
  const show = useEffectEvent((picture: ImageBitmap) => {
    update({ picture });
    if (freshOf === session().id) onFresh();
    freshOf = null;
  });
  useEffect(() => {
    const own = inPicture(adjust);
    if (isMade(session().picture, plain, own)) {
      freshOf = null;
      return;
    }
    if (!own) {
      show(plain);
      return;
    }
    let wanted = true;
    const timer = setTimeout(() => {
      adjustPicture(plain, own).then(
        (picture) => {
          if (!wanted) return;
          made.set(picture, { of: plain, how: JSON.stringify(own) });
          show(picture);
        },
        (error: unknown) =>
          notify({ key: 'adjust', tone: 'bad', title: 'Not adjusted', lines: [messageOf(error)] }),
      );
    }, REST);
    return () => {
      wanted = false;
      clearTimeout(timer);
    };
  }, [plain, adjust]);
}
