import type { ShotDocument } from './document';
import { withFinish } from '../finish/finish';
import { overlap } from '../geometry/rect';
import type { MarkTools } from '../marks/contract';
import { hidesLeaving, kindOf, type Mark } from '../marks/registry';
import { sheetOf } from './view';
import { unlinked } from './bring';
import { usedPictures } from './heldPictures';

/** What a shot becomes when everything that cannot be seen is dropped for good. */
export interface Dropped {
  /** Painted, as it leaves, this is the new frame. */
  frame: ShotDocument;
  /** The new shot, on that frame. */
  document: ShotDocument;
}

/**
 * Parts a document into what becomes pixels and what stays a mark. Hide marks become pixels, and
 * so does every mark below the topmost of them that reaches under one: what is written there must
 * not stay readable in the document. Marks outside the view are dropped.
 */
export function dropRest(document: ShotDocument, tools: MarkTools): Dropped {
  const crop = sheetOf(document.view);
  const bounds = (mark: Mark) => kindOf(mark).bounds(mark, tools);
  const hides = document.marks.filter(hidesLeaving);
  const topmost = document.marks.findLastIndex((mark) => hides.includes(mark));
  const burnt = document.marks.filter(
    (mark, i) =>
      i <= topmost &&
      (hides.includes(mark) ||
        (!kindOf(mark).everywhere && hides.some((hide) => overlap(bounds(hide), bounds(mark))))),
  );
  const rest = document.marks.filter(
    (mark) => !burnt.includes(mark) && (kindOf(mark).everywhere || overlap(bounds(mark), crop)),
  );
  const by = { x: -crop.x, y: -crop.y };
  const { pictures: _, finish, ...bare } = document;
  const adjust = finish?.adjust;
  // Marks that become pixels must not be adjusted with the picture they are in then.
  const isBaked = burnt.length > 0 && adjust?.on === 'picture';
  const stays = withFinish(finish, isBaked ? { adjust: undefined } : {});
  const marks = rest.map((mark) => unlinked(kindOf(mark).move(mark, by)));
  return {
    frame: { ...document, finish: isBaked ? { adjust } : undefined, marks: burnt },
    document: {
      ...bare,
      ...(stays && { finish: stays }),
      view: { crop: { x: 0, y: 0, width: crop.width, height: crop.height } },
      marks,
      ...usedPictures(document.pictures, { marks, finish: stays }),
    },
  };
}
