import { withFinish, type Finish } from '../finish/finish';
import type { HeldPictures } from '../values/heldPicture';
import type { ShotDocument } from './document';
import { usedPictures } from './heldPictures';

/** What a look does to a picture. */
export interface Looks {
  finish: Finish;
  pictures?: HeldPictures | undefined;
}

/** True when the picture of a watermark is there. */
export function hasAllHeld({ finish, pictures }: Looks): boolean {
  const key = finish.surround?.watermark?.picture;
  return key === undefined || (pictures !== undefined && Object.hasOwn(pictures, key));
}

/**
 * A document with a look in place of what was done to it.
 * @param number what {n} of its caption writes, where several get it
 */
export function withLook(
  document: ShotDocument,
  { finish: given, pictures }: Looks,
  number?: number,
): ShotDocument {
  const { finish: _, pictures: held, ...rest } = document;
  const surround = given.surround?.caption
    ? { ...given.surround, caption: { ...given.surround.caption, ...(number && { number }) } }
    : given.surround;
  const finish = withFinish(undefined, { ...given, surround });
  return {
    ...rest,
    ...usedPictures({ ...held, ...pictures }, { marks: rest.marks, finish }),
    ...(finish && { finish }),
  };
}

/** What of a document a look can be made of; null where nothing is done to it. */
export function lookOf({ finish, pictures }: ShotDocument): Looks | null {
  const given = withFinish(finish, {});
  if (!given) return null;
  const { surround } = given;
  // A number belongs to its shot.
  const caption = surround?.caption && { ...surround.caption, number: undefined };
  const own = surround && { ...surround, ...(caption && { caption }) };
  return {
    finish: { ...given, ...(own && { surround: own }) },
    ...usedPictures(pictures, { marks: [], finish: given }),
  };
}
