import { keptApart } from '@/core/document/blackAndWhite';
import { withFinish } from '@/core/finish/finish';
import { announce } from '../../ui/announce';
import { changeDocument } from '../session/changes';
import { newId } from '../session/newId';
import { session, update } from '../session/session';

/** All in grey as a black and white printer has it, with marks of different colours kept apart. */
export function fitForPrinting(): void {
  const { history, shaper } = session();
  const { marks, said } = keptApart(history.document.marks, { shaper }, newId);
  update({ before: false });
  changeDocument('For black and white', (draft) => {
    const adjust = { ...draft.finish?.adjust, on: 'all' as const, grey: 100 };
    const finish = withFinish(draft.finish, { adjust });
    if (finish) draft.finish = finish;
    draft.marks = [...marks];
  });
  if (said) announce(said);
}
