import type { Clip } from '@/core/contracts/clip';
import { hidesBoxes, isInParts } from '@/core/paint/parts';
import type { Planes } from '@/core/raster/yCbCr';
import { coloursOf, type Colours } from '../media/probe';

/** How the pictures of a film are handed on in planes. */
export interface InPlanes {
  planes: Planes;
  /** What the program does to its pictures for that. */
  filter: string;
  /** As the program calls how they lie then. */
  format: string;
}

/** Films whose pictures are handed on as they are; those with a J have the full range. */
const NATIVE = /^yuvj?4(20|44)p$/;
const matrices: Partial<Record<string, Planes['matrix']>> = {
  bt709: 'bt709',
  smpte170m: 'bt601',
  bt470bg: 'bt601',
  // Where a film does not say, the program reads it so, for pictures as well.
  unknown: 'bt601',
};

/**
 * How the pictures of a clip are read to be painted: as a film is written, wherever they can be, so
 * that what nothing lies on stays what it is, to the sample. Where it is not known what is hidden, a
 * colour for several pixels would carry some of it to what is beside it.
 * @param fine one colour for each pixel
 */
export async function planesFor(
  { document }: Pick<Clip, 'document'>,
  path: string,
  fine: boolean,
  signal: AbortSignal,
): Promise<InPlanes> {
  const { crop, follow } = document.view;
  // Where one colour is for several pixels, what is shown must begin with a colour, on all pictures.
  const isEven = !follow && crop.x % 2 === 0 && crop.y % 2 === 0;
  const half = !fine && isEven && isInParts(document) && hidesBoxes(document);
  return planesOf(await coloursOf(path, signal), half);
}

function planesOf({ format, range, matrix: told }: Colours, half: boolean): InPlanes {
  const known = matrices[told];
  const full = range === 'pc' || format.startsWith('yuvj');
  if (NATIVE.test(format) && known && half === format.includes('420'))
    return { planes: { half, full, matrix: known }, filter: `format=${format}`, format };
  const kept = format.startsWith('yuv') ? known : undefined;
  const to = half ? 'yuv420p' : 'yuv444p';
  // The mean of those that one colour is for, and the same for each of them: nothing that is hidden
  // tells on what lies further away.
  const flags = half ? 'area' : 'neighbor';
  const matrix = kept ? '' : ':out_color_matrix=bt709';
  return {
    planes: { half, full: false, matrix: kept ?? 'bt709' },
    filter: `scale=flags=${flags}:out_range=tv${matrix},format=${to}`,
    format: to,
  };
}
