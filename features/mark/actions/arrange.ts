import { z } from 'zod';
import { heldPicturesSchema } from '@/core/values/heldPicture';
import { aligned, distributed, type Side } from '@/core/geometry/arrange';
import type { Point } from '@/core/geometry/point';
import { kindOf, markSchema, picturesOf, type Mark } from '@/core/marks/registry';
import { unlinked } from '@/core/document/bring';
import { usedPictures } from '@/core/document/heldPictures';
import { isNewer, upgradedDocument } from '@/core/document/upgrade/upgrade';
import { DOCUMENT_VERSION } from '@/core/document/version';
import { paintPng } from '../../pictures/pictures';
import { copyPicture } from '../../pictures/clipboard';
import { notify } from '../../notices/noticeStore';
import { replaceMarks } from './change';
import { select, selectedMarks } from '../session/select';
import { changeDocument } from '../session/changes';
import { newId } from '../session/newId';
import { addPicture } from './pieces';
import { leavingDocument } from '../session/leaving';
import { session } from '../session/session';

const movable = (): Mark[] => selectedMarks().filter((mark) => !mark.locked);

function moveEach(marks: readonly Mark[], by: readonly Point[], label: string): void {
  const moved = marks.map((mark, i) => kindOf(mark).move(mark, by[i] ?? { x: 0, y: 0 }));
  if (moved.length > 1) replaceMarks(moved, label);
}

const placesOf = (marks: readonly Mark[]) => {
  const { shaper } = session();
  return marks.map((mark) => kindOf(mark).bounds(mark, { shaper }));
};

/** Lines the selected marks up along one side or their middles. */
export function alignSelected(side: Side): void {
  const marks = movable();
  moveEach(marks, aligned(placesOf(marks), side), 'Align');
}

/** Makes the gaps between the selected marks equal. */
export function distributeSelected(along: 'x' | 'y'): void {
  const marks = movable();
  moveEach(marks, distributed(placesOf(marks), along), 'Distribute');
}

/** The format marks are copied in; docs/api.md describes it. */
const clippingSchema = z.preprocess(
  upgradedDocument,
  z.object({
    format: z.literal('rezzik-marks'),
    /** Of the documents that have such marks. */
    version: z.literal(DOCUMENT_VERSION),
    marks: z.array(markSchema).max(2_000),
    pictures: heldPicturesSchema.optional(),
  }),
);
const TYPE = 'web application/rezzik-marks+json';
/** Where a browser's clipboard has no place for formats of a page's own; shared by all its tabs. */
const KEPT = 'rezzik-marks';

/** Copies the selected marks, with the picture beside them for other programs. */
export async function copyMarks(): Promise<void> {
  // On another shot they would not know their frame.
  const marks = selectedMarks().map(unlinked);
  const { frame, history } = session();
  const words = JSON.stringify({
    format: 'rezzik-marks',
    version: DOCUMENT_VERSION,
    marks,
    ...usedPictures(history.document.pictures, { marks }),
  });
  try {
    localStorage.setItem(KEPT, words);
  } catch {
    // Too much for this place; the clipboard may still take it.
  }
  const json = new Blob([words], { type: 'application/rezzik-marks+json' });
  await copyPicture(paintPng(frame, leavingDocument()), { beside: { [TYPE]: json } });
  notify({
    key: 'marks-copied',
    tone: 'good',
    title: 'Copied',
    lines: [
      'Paste the picture anywhere.',
      marks.length === 1
        ? 'In another shot you get the mark.'
        : `In another shot you get the ${marks.length} marks.`,
    ],
  });
}

/** Marks where the clipboard has them, else a picture. */
async function clipping(): Promise<{ words: string | null; picture: Blob | null }> {
  try {
    let picture: Blob | null = null;
    for (const item of await navigator.clipboard.read()) {
      if (item.types.includes(TYPE)) {
        return { words: await (await item.getType(TYPE)).text(), picture: null };
      }
      const type = item.types.find((t) => t.startsWith('image/'));
      picture ??= type ? await item.getType(type) : null;
    }
    if (picture) return { words: null, picture };
  } catch {
    // Not allowed to read, or nothing readable: what this browser copied last serves.
  }
  return { words: localStorage.getItem(KEPT), picture: null };
}

/** What was copied here may lie under what is dropped. */
export const forgetCopiedMarks = (): void => localStorage.removeItem(KEPT);

const OFFSET = 16;

/** Adds copied marks to this shot, a little aside when they are there already. */
export async function pasteMarks(): Promise<void> {
  const { words, picture } = await clipping();
  if (words === null && picture) {
    await addPicture(picture);
    return;
  }
  const read = clippingSchema.safeParse(parsed(words));
  if (!read.success) {
    const newer = 'These marks were copied in a newer Rezzik. Load this page anew, then paste.';
    const none = 'The clipboard holds neither marks nor a picture. Copy something first.';
    const lines = [isNewer(parsed(words)) ? newer : none];
    notify({ key: 'paste', tone: 'bad', title: 'Nothing pasted', lines });
    return;
  }
  const places = new Set(session().history.document.marks.map((mark) => placeKey(mark)));
  const marks = read.data.marks.map((mark) => {
    const aside = places.has(placeKey(mark));
    const placed = aside ? kindOf(mark).move(mark, { x: OFFSET, y: OFFSET }) : mark;
    return { ...placed, id: newId() };
  });
  const pictures = { ...session().history.document.pictures, ...read.data.pictures };
  const whole = marks.filter((mark) =>
    picturesOf(mark).every((key) => Object.hasOwn(pictures, key)),
  );
  changeDocument('Paste', (draft) => {
    if (Object.keys(pictures).length) draft.pictures = pictures;
    draft.marks.push(...whole);
  });
  select(whole.map((mark) => mark.id));
}

function parsed(words: string | null): unknown {
  try {
    return JSON.parse(words ?? 'null') as unknown;
  } catch {
    return null;
  }
}

const placeKey = (mark: Mark): string => {
  const { x, y } = kindOf(mark).bounds(mark, { shaper: session().shaper });
  return `${mark.kind} ${Math.round(x)} ${Math.round(y)}`;
};
