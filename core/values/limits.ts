/** Bounds that every border checks; stated in docs/api.md. */
export const limits = {
  /** Bytes of one uploaded picture, and the room left for the other parts of the form. */
  pictureBytes: 128 * 1000 * 1000,
  /** Bytes of a frame as it is stored: of the most pixels, with four bytes each and room around. */
  frameBytes: 560_000_000,
  formBytes: 128 * 1000 * 1000 + 4 * 1000 * 1000,
  jsonBytes: 16 * 1000 * 1000,
  /** Pixels of one frame: width × height. */
  pixels: 134_000_000,
  /** Longest side a frame may have: what canvases and WebP thumbnails can still address. */
  side: 32_767,
  coordinate: 100_000,
  /** One picture lying on a shot, as PNG; and all of a shot, as base64. */
  heldPictureBytes: 4_000_000,
  heldPicturesText: 7_000_000,
  marks: 5_000,
  points: 100_000,
  textLength: 20_000,
  captionLength: 2_000,
  titleLength: 300,
  descriptionLength: 2_000,
  nameLength: 300,
  patternLength: 300,
  pathLength: 4_000,
  pageSize: 200,
  queryLength: 10_000,
  tagLength: 60,
  tagsOfShot: 100,
  tagsOfStep: 20,
  tags: 10_000,
  savedSearches: 200,
  /** A folder with less room than this is said to be nearly full, bytes. */
  littleRoom: 200 * 1000 * 1000,
  /** With less than this left for the database it is said that room runs short, bytes. */
  roomLeft: 5_000_000_000,
  guides: 2_000,
  series: 1_000,
  /** Pictures of one moving picture. */
  movingPictures: 1_000,
  guideItems: 1_000,
  /** Markdown of one caption: what takes long to read takes it with the square of its length. */
  guideCaption: 5_000,
  /** All pictures of a guide together, bytes. */
  guidePictures: 200 * 1000 * 1000,
  delay: 60,
} as const;
