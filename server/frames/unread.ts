import { unreadJpeg } from '@/core/raster/jpegHeader';
import { isBigTiff, tiffHeader, unreadTiff } from '@/core/raster/tiffHeader';
import { Fault } from '../base/fault';
import type { PictureType } from './kind';

export const damaged = () =>
  new Fault(422, 'damaged', 'This picture is damaged or cut short. Nothing was stored.');

/** A picture that may be sound, of a kind that is not read. @param kind “a BMP in CMYK” */
export const unread = (kind: string) =>
  new Fault(415, 'not-read', `Rezzik cannot read ${kind}. Nothing was stored.`);

/** Refuses what its header says is of a kind that is not read, or would be read wrong. @throws Fault 415 */
export function refuseUnread(bytes: Uint8Array, type: PictureType): void {
  const kind = type === 'tiff' ? tiffKind(bytes) : type === 'jpeg' ? unreadJpeg(bytes) : null;
  if (kind) throw unread(kind);
}

function tiffKind(bytes: Uint8Array): string | null {
  if (isBigTiff(bytes)) return 'a BigTIFF';
  const header = tiffHeader(bytes);
  return header && unreadTiff(header);
}

/** What the decoder could not read: of a kind that it does not know, or damaged. */
export function whyUnread(bytes: Uint8Array, type: PictureType): Fault {
  // Where nothing is missing it is the decoder that does not know how.
  return type === 'tiff' && tiffHeader(bytes)?.whole ? unread('this kind of TIFF') : damaged();
}
