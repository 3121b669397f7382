/** Small pictures of a film, side by side: how many, and how high each is, pixels. */
export const STRIP = { pictures: 12, height: 90 } as const;

/** Which picture of a film stands at a place of its strip. @param count of its pictures */
export const stripPicture = (place: number, count: number): number =>
  Math.floor(((place + 0.5) * count) / STRIP.pictures);
