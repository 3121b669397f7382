import { useEffect } from 'react';
import type { HeldPicture } from '@/core/values/heldPicture';
import { limits } from '@/core/values/limits';
import type { Point } from '@/core/geometry/point';
import { centre, fitScale } from '@/core/geometry/rect';
import { picturePiece } from '@/core/marks/piece/kind';
import { decodeFrame, packPiece } from '../../pictures/pictures';
import { notify } from '../../notices/noticeStore';
import { chooseTool } from './chooseTool';
import { select } from '../session/select';
import { changeDocument } from '../session/changes';
import { toFrame } from '../session/camera';
import { newId } from '../session/newId';
import { usePointer } from '../session/pointerStore';
import { openId, session } from '../session/session';

/** The most of the view that a new piece covers, across or down. */
const SHARE = 0.6;

/** Lays a picture on the shot as a piece. What is no picture is said. */
export async function addPicture(blob: Blob, at?: Point): Promise<void> {
  const shot = openId();
  const packed = await held(blob);
  if (!packed || openId() !== shot) return;
  const { crop } = session().history.document.view;
  const scale = fitScale(packed, { width: crop.width * SHARE, height: crop.height * SHARE }, 1);
  const key = newId();
  const mark = picturePiece(newId(), key, packed, at ?? centre(crop), scale);
  changeDocument('Add a picture', (draft) => {
    draft.pictures = { ...draft.pictures, [key]: packed };
    draft.marks.push(mark);
  });
  chooseTool('grab');
  select([mark.id]);
}

/** Shows a picture as the watermark of the shot. What is no picture is said. */
export async function setWatermarkPicture(blob: Blob): Promise<void> {
  const shot = openId();
  const packed = await held(blob);
  if (openId() !== shot) return;
  const watermark = session().history.document.finish?.surround?.watermark;
  if (!packed || !watermark) return;
  const key = newId();
  changeDocument('Watermark', (draft) => {
    const now = draft.finish?.surround?.watermark;
    if (!now) return;
    draft.pictures = { ...draft.pictures, [key]: packed };
    now.picture = key;
  });
}

/** A picture as a document holds it; null where that cannot be, which is said. */
async function held(blob: Blob): Promise<HeldPicture | null> {
  let picture: ImageBitmap;
  try {
    picture = await decodeFrame(blob);
  } catch {
    refuse('This is not a picture that can be laid on a shot.');
    return null;
  }
  const { held, shrunk } = await packPiece(picture);
  if (!fitsIn(held)) return null;
  if (shrunk) {
    notify({
      key: 'piece',
      tone: 'plain',
      title: 'The picture was made smaller',
      lines: [
        `It lies on the shot with ${held.width} × ${held.height} pixels, so that it can be held.`,
      ],
    });
  }
  return held;
}

/** Whether the open shot can hold a picture besides its others; it is said when not. */
export function fitsIn(held: HeldPicture, inPlaceOf?: string): boolean {
  const others = Object.entries(session().history.document.pictures ?? {});
  const sum = others.reduce(
    (n, [key, { png }]) => (key === inPlaceOf ? n : n + png.length),
    held.png.length,
  );
  if (sum <= limits.heldPicturesText) return true;
  refuse('The pictures lying on this shot would be too large together. Take one away first.');
  return false;
}

const refuse = (words: string): void =>
  notify({ key: 'piece', tone: 'bad', title: 'Nothing added', lines: [words] });

/** Pictures dropped on Mark become pieces of the shot. */
export function useDroppedPictures(): void {
  useEffect(() => {
    const over = (event: DragEvent) => {
      if (event.dataTransfer?.types.includes('Files')) event.preventDefault();
    };
    const drop = (event: DragEvent) => {
      const files = [...(event.dataTransfer?.files ?? [])];
      if (files.length === 0) return;
      event.preventDefault();
      void addAll(files, placeOf(event));
    };
    window.addEventListener('dragover', over);
    window.addEventListener('drop', drop);
    return () => {
      window.removeEventListener('dragover', over);
      window.removeEventListener('drop', drop);
    };
  }, []);
}

async function addAll(files: readonly File[], at: Point | undefined): Promise<void> {
  for (const file of files) await addPicture(file, at);
}

/** The place of the picture under a drop; none outside it. */
function placeOf(event: DragEvent): Point | undefined {
  const stage =
    event.target instanceof Element ? event.target.closest('[data-testid="stage"]') : null;
  if (!stage) return undefined;
  const box = stage.getBoundingClientRect();
  const screen = { x: event.clientX - box.left, y: event.clientY - box.top };
  return toFrame(usePointer.getState().camera, screen);
}
