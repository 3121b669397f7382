import { besideView } from '@/core/document/bring';
import { pictureSize } from '@/core/document/turn';
import { cropInside } from '@/core/document/view';
import type { Rect } from '@/core/geometry/rect';
import { hides } from '@/core/marks/registry';
import type { HeldPicture } from '@/core/values/heldPicture';
import type { PieceMark } from '@/core/marks/piece/schema';
import { messageOf } from '../../api/ask';
import { packPiece, paintView } from '../../pictures/pictures';
import { notify } from '../../notices/noticeStore';
import { changeDocument } from '../session/changes';
import { newId } from '../session/newId';
import { select } from '../session/select';
import { fitView, openId, session, update } from '../session/session';
import { chooseTool } from './chooseTool';
import { fitsIn } from './pieces';

/**
 * A place of the frame as a document holds pictures; what is hidden there stays hidden. Null where
 * the shot, the open one still, would hold too much with it, or another is open by now.
 * @param inPlaceOf the key of the held picture that goes for it
 */
async function heldPart(part: Rect, inPlaceOf?: string): Promise<HeldPicture | null> {
  const { id, frame, history } = session();
  const { document } = history;
  const { turn } = document.view;
  const { adjust } = document.finish ?? {};
  const picture = await paintView(
    frame,
    {
      ...document,
      view: { crop: part, ...(turn && { turn }) },
      marks: document.marks.filter(({ kind }) => hides(kind)),
      // What is done to all is done to the part where it lies.
      ...{ finish: adjust?.on === 'picture' ? { adjust } : undefined },
    },
    1,
  );
  const { held } = await packPiece(picture);
  return openId() === id && fitsIn(held, inPlaceOf) ? held : null;
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
  try {
    const held = await heldPart(part);
    if (!held) return;
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
  try {
    const held = await heldPart(part, mark.picture);
    if (!held) return;
    // It may be held smaller than it is in the frame, and cut.
    const seen = ((mark.cut?.width ?? 1) * from.width) / (mark.size?.width ?? 1);
    const scale = mark.width / seen;
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
