import { useEffect } from 'react';
import type { Turn } from '@/core/document/viewSchema';
import type { ShotDocument } from '@/core/document/document';
import { squaredSize, type Quad } from '@/core/geometry/homography';
import { isTurned, pictureSize, turnMatrix, upright } from '@/core/document/turn';
import { turnDocument } from '@/core/document/turnDocument';
import { turnFrame } from '../../pictures/pictures';
import { messageOf } from '../../api/ask';
import { notify } from '../../notices/noticeStore';
import { changeDocument } from '../session/changes';
import { useDocument } from '../session/document';
import { session, update } from '../session/session';

export const currentTurn = (): Turn => session().history.document.view.turn ?? upright;

/** Turning on from the same start does not add up what rounding loses. */
let last: { from: ShotDocument; to: ShotDocument } | null = null;

/** Turns the frame in another way; quick repeats with a `joins` key are one step of undo. */
export function setTurn(turn: Turn, label = 'Turn', joins = ''): void {
  const { history, frame, shaper } = session();
  const { document } = history;
  const from = last?.to === document ? last.from : document;
  const to = turnDocument(from, frame, turn, { shaper });
  changeDocument(
    label,
    (draft) => {
      draft.view = to.view;
      draft.marks = to.marks;
    },
    joins,
  );
  last = { from, to: session().history.document };
  update({ camera: { ...session().camera, mode: 'fit' }, selection: [] });
}

/** The picture at once but roughly; null where only the worker can tell. */
function roughly(frame: ImageBitmap, turn: Turn): ImageBitmap | null {
  if (turn.square) return null;
  const { width, height } = pictureSize(frame, turn);
  const canvas = new OffscreenCanvas(width, height);
  const surface = canvas.getContext('2d');
  const [a, b, c, d, e, f] = turnMatrix(frame, turn);
  surface?.setTransform(a, d, b, e, c, f);
  surface?.drawImage(frame, 0, 0);
  return surface && canvas.transferToImageBitmap();
}

/** The frame as a view shows it, exactly. */
export const turnedPicture = async (
  frame: ImageBitmap,
  turn: Turn | undefined,
): Promise<ImageBitmap> => (isTurned(turn) ? turnFrame(frame, turn) : frame);

/** Keeps the picture that marks lie on as the view says, also through undo. */
export function useTurnedPicture(): void {
  const frame = useDocument((s) => s.frame);
  const turn = useDocument((s) => s.history.document.view.turn);
  useEffect(() => {
    let wanted = true;
    if (!isTurned(turn)) {
      if (session().plain !== frame) update({ plain: frame, picture: frame });
      return;
    }
    if (turned.get(session().plain) === turn) return;
    const rough = roughly(frame, turn);
    if (rough) update({ plain: rough, picture: rough });
    turnFrame(frame, turn).then(
      (picture) => {
        if (!wanted) return;
        turned.set(picture, turn);
        update({ plain: picture, picture });
      },
      (error: unknown) =>
        notify({ key: 'turn', tone: 'bad', title: 'Not turned', lines: [messageOf(error)] }),
    );
    return () => {
      wanted = false;
    };
  }, [frame, turn]);
}

/** Which pictures are exact, and for which turn. */
const turned = new WeakMap<ImageBitmap, Turn>();
export const rememberTurned = (picture: ImageBitmap, turn: Turn | undefined): void => {
  if (turn) turned.set(picture, turn);
};

const INSET = 0.12;

/** Begins to pull four corners square: the ones set before, or a quarter of the way in. */
export function startSquaring(): void {
  const { frame } = session();
  const { width, height } = frame;
  const known = currentTurn().square?.corners;
  const at = (x: number, y: number) => ({ x: Math.round(width * x), y: Math.round(height * y) });
  const first: Quad = [
    at(INSET, INSET),
    at(1 - INSET, INSET),
    at(1 - INSET, 1 - INSET),
    at(INSET, 1 - INSET),
  ];
  update({ squaring: known ?? first, camera: { ...session().camera, mode: 'fit' } });
}

export function endSquaring(applied: boolean): void {
  const { squaring, frame } = session();
  update({ squaring: null, camera: { ...session().camera, mode: 'fit' } });
  if (!squaring || !applied) return;
  const size = squaredSize(squaring, { x: frame.width / 2, y: frame.height / 2 });
  const [a, b, c, d] = squaring;
  setTurn({ ...upright, square: { corners: [a, b, c, d], ...size } }, 'Pull four corners square');
}

/** Back to the frame as it was taken. */
export const unturn = (): void => setTurn(upright, 'Turn back');
