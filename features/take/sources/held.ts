/** Said where a moment is asked for that is held no more. */
export const GONE = 'That moment is no longer held. Look back once more.';

/** The picture no wider than so many pixels; where it is wider, it is closed and another one comes. */
export async function narrowed(picture: ImageBitmap, width: number): Promise<ImageBitmap> {
  if (picture.width <= width) return picture;
  const small = await createImageBitmap(picture, {
    resizeWidth: width,
    resizeHeight: Math.max(1, Math.round((picture.height * width) / picture.width)),
    resizeQuality: 'medium',
  });
  picture.close();
  return small;
}
