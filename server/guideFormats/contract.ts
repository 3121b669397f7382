import type { ClipFormat } from '@/core/contracts/clipCopy';
import type { GuideFormat } from '@/core/contracts/guide';
import type { Page } from '@/core/guide/page';

/** The picture of a step as PNG, with nothing beside its pixels. */
export interface Picture {
  png: Uint8Array;
  width: number;
  height: number;
}

/** A clip as it moves. */
export interface Moving {
  bytes: Uint8Array;
  mediaType: string;
  extension: string;
}

/** What a file is written from. */
export interface Material {
  page: Page;
  /** By the id of their step. */
  pictures: ReadonlyMap<string, Picture>;
  /** Of those that are to move, by the id of their step too. */
  moving: ReadonlyMap<string, Moving>;
  /** Names the guide for programs that know it again, a UUID. */
  id: string;
  /** When it was last changed. */
  changedAt: string;
  /** How its file is called, without extension. */
  name: string;
}

/** A file of a guide, by the folders it lies in and its name. */
export interface GuideBytes {
  path: string[];
  bytes: Uint8Array;
}

export interface GuideWriter {
  name: GuideFormat;
  mediaType: string;
  extension: string;
  /** What moves in it, where anything can. */
  moves?: ClipFormat;
  /** The first file is the guide; others lie beside it. */
  write: (material: Material) => Promise<GuideBytes[]>;
}

/** @throws Error where there is none: each step has one */
export function pictureFor({ pictures }: Material, id: string): Picture {
  const picture = pictures.get(id);
  if (!picture) throw new Error(`The step ${id} has no picture.`);
  return picture;
}
