import type { FormatFacts, FormatName } from '@/core/contracts/format';
import { avif } from './avif';
import { bmp } from './bmp';
import type { Format } from './contract';
import { gif } from './gif';
import { jpeg } from './jpeg';
import { pdf } from './pdf';
import { png } from './png';
import { svg } from './svg';
import { tiff } from './tiff';
import { webp } from './webp';

/** Every file format: a new one is one file and one line here. */
export const formats: Record<FormatName, Format> = {
  png,
  jpeg,
  webp,
  avif,
  gif,
  tiff,
  bmp,
  svg,
  pdf,
};

/** What the interface is built from. */
export const formatFacts = (): FormatFacts[] =>
  Object.values(formats).map(({ name, label, note, mediaType, extension, ...can }) => ({
    name,
    label,
    note,
    mediaType,
    extension,
    transparent: can.transparent,
    quality: can.quality,
    facts: can.facts,
    fields: [...can.fields],
  }));
