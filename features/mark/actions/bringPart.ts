import { besideView } from '@/core/document/bring';
import { pictureSize } from '@/core/document/turn';
import { cropInside } from '@/core/document/view';
import { withFinish } from '@/core/finish/finish';
import type { Rect } from '@/core/geometry/rect';
import { hides } from '@/core/marks/registry';
import type { PieceMark } from '@/core/marks/piece/schema';
import { messageOf } from '../../api/ask';
import { packPiece, paintView } from '../../pictures/pictures';
import { notify } from '../../notices/noticeStore';
import { changeDocument } from '../session/changes';
import { newId } from '../session/newId';
import { select } from '../session/select';
import { fitView, openId, session, update } from '../session/session';
import { chooseTool } from './chooseTool';

/** A place of the frame as a document holds pictures; what is hidden there stays hidden. */
async function heldPart(part: Rect) {
  const { frame, history } = session();
  const { document } = history;
  const { turn } = document.view;
  const picture = await paintView(
    frame,
    {
      ...document,
      view: { crop: part, ...(turn && { turn }) },
      marks: document.marks.filter(({ kind }) => hides(kind)),
      finish: withFinish(document.finish, { surround: undefined }),
    },
    1,
  );
  return (await packPiece(picture)).held;
}

const insideFrame = (wanted: Rect): Rect => {
  const { frame, history } = session();
  return cropInside(wanted, pictureSize(frame, history.document.view.turn));
};

const failed = (error: unknown): void =>
  notify({ key: 'part', tone: 'bad', title: 'No part was brought', lines: [messageOf(error)] });

/** Brings another place of the frame beside the view, which grows to hold both. */
export async function bringPart(wanted: Rect): Promise<void> {
  const part = insideFrame(wanted);
  const shot = openId();
  try {
    const held = await heldPart(part);
    // Whoever has gone on to another shot wants nothing there.
    if (openId() !== shot) return;
    const [key, id] = [newId(), newId()];
    changeDocument('Bring a part here', (draft) => {
      const { at, room } = besideView(draft.view, part);
      // Only a whole rectangle has room beside it.
      delete draft.view.shape;
      draft.view.room = room;
      draft.pictures = { ...draft.pictures, [key]: held };
      draft.marks.push(pieceOf(id, key, part, held, at));
    });
    update({ bringing: null });
    chooseTool('grab');
    select([id]);
    fitView();
  } catch (error) {
    failed(error);
  }
}

const pieceOf = (
  id: string,
  picture: string,
  part: Rect,
  held: { width: number; height: number },
  at: { x: number; y: number },
): PieceMark => ({
  id,
  kind: 'piece',
  ...at,
  width: part.width,
  height: part.height,
  hotSpot: { x: 0, y: 0 },
  picture,
  size: { width: held.width, height: held.height },
  cut: { x: 0, y: 0, width: held.width, height: held.height },
  from: part,
});

/** Shows more or less of the frame in a part that was brought; its top left corner stays in line. */
export async function widenPart(mark: PieceMark, wanted: Rect): Promise<void> {
  const { from } = mark;
  if (!from || mark.locked) return;
  const part = insideFrame(wanted);
  const shot = openId();
  try {
    const held = await heldPart(part);
    if (openId() !== shot) return;
    const scale = mark.width / (mark.cut?.width ?? from.width);
    const key = newId();
    const at = { x: mark.x + (part.x - from.x) * scale, y: mark.y + (part.y - from.y) * scale };
    changeDocument('Widen a part', (draft) => {
      const i = draft.marks.findIndex(({ id }) => id === mark.id);
      if (i < 0) return;
      draft.pictures = { ...draft.pictures, [key]: held };
      draft.marks[i] = {
        ...pieceOf(mark.id, key, part, held, at),
        ...(mark.angle && { angle: mark.angle }),
        width: part.width * scale,
        height: part.height * scale,
      };
    });
  } catch (error) {
    failed(error);
  }
}
