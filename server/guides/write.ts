import type { Guide, GuideFormat } from '@/core/contracts/guide';
import { pageOf, type Page } from '@/core/guide/page';
import { safeName } from '@/core/naming/safeName';
import { guideWriters } from '../guideFormats';
import type { GuideBytes, Material } from '../guideFormats/contract';
import { run } from '../pool/pool';
import { getGuide } from './guides';
import { movingOf } from './moving';
import { picturesOf } from './pictures';

/** A guide with all that its files are written from, as everything is now. */
export interface Ready {
  material: Material;
  guide: Guide;
  /** The shots that it shows. */
  shows: string[];
  /** Steps that are left out. */
  left: number;
}

/** Paints all pictures of a guide. @throws Fault 404, 409 too large */
export async function readyGuide(id: string, signal?: AbortSignal): Promise<Ready> {
  const { title, guide, shots, changedAt } = await getGuide(id);
  const page = pageOf(title, guide, shots);
  const pictures = await picturesOf(page, guide, signal);
  const steps = guide.items.filter(({ kind }) => kind === 'step').length;
  return {
    material: { page, pictures, moving: new Map(), id, changedAt, name: safeName(title, 'guide') },
    guide,
    shows: shownIn(page),
    left: steps - pictures.size,
  };
}

/** The same with what moves in a format, of the clips that are to. @throws Fault 409 too large */
export async function withMoving(
  { material, guide }: Pick<Ready, 'material' | 'guide'>,
  format: GuideFormat,
  signal?: AbortSignal,
): Promise<Material> {
  const { moves } = guideWriters[format];
  if (!moves) return material;
  return { ...material, moving: await movingOf(material, guide, moves, signal) };
}

const shownIn = ({ parts }: Page): string[] => [
  ...new Set(parts.flatMap((part) => (part.kind === 'step' ? [part.shot] : []))),
];

/** Bytes of a PNG become about so many pixels where a writer unpacks them. */
const PIXELS_PER_BYTE = 2;
/** How long a thousand pictures may take, ms. */
const MOST_TIME = 600_000;

/** The files of a guide in a format. */
export function writeGuide(
  format: GuideFormat,
  material: Material,
  signal?: AbortSignal,
): Promise<GuideBytes[]> {
  let bytes = 0;
  for (const { png } of material.pictures.values()) bytes += png.length;
  for (const moving of material.moving.values()) bytes += moving.bytes.length;
  const pixels = bytes * PIXELS_PER_BYTE;
  return run('guide', { format, material }, { pixels, ms: MOST_TIME, signal });
}
