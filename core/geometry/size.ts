/** A width and a height, in pixels. */
export interface Size {
  width: number;
  height: number;
}

/** Longer than this for its width, a picture is read by scrolling and not seen at once. */
const LONG = 3;

/** Whether a picture is a long page: fitted into a window it would be a strip. */
export const isLong = ({ width, height }: Size): boolean => height > LONG * width;
