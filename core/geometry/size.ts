/** A width and a height, in pixels. */
export interface Size {
  width: number;
  height: number;
}
