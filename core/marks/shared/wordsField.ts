import type { Point } from '../../geometry/point';
import type { Align, Face } from '../../drawing/names';

/** Words of a mark and how they look; lengths are frame pixels. */
export interface Words {
  text: string;
  textSize: number;
  bold: boolean;
  face: Face;
  align: Align;
  lineSpacing: number;
}

/** The field that words are typed into, lying where they will be; lengths are frame pixels. */
export interface WordsField extends Omit<Words, 'text'> {
  x: number;
  y: number;
  width: number;
  /** Words stand in the middle of this height; absent when they hang from the top. */
  height?: number;
  padding: number;
  colour: string;
  ground: string | null;
  /** Set when the words stand at an angle, in degrees. */
  turned?: { angle: number; about: Point };
}
