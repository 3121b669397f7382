import type { Folder } from '@/core/contracts/folder';
import type { FormatName, FormatOptions, SizeWish } from '@/core/contracts/format';
import type { PictureWish } from '../api/picture';

/** What is set in Keep; null follows the folder. */
export interface Wish {
  format: FormatName | null;
  quality: number | null;
  options: FormatOptions | null;
  size: SizeWish | null;
  maxBytes: number | null;
  background: string;
  pattern: string | null;
}

export const noWish: Wish = {
  format: null,
  quality: null,
  options: null,
  size: null,
  maxBytes: null,
  background: '#FFFFFF',
  pattern: null,
};

/** How a picture leaves for a folder: its rules, and over them what is set in Keep. */
export function wishFor(wish: Wish, folder: Folder | undefined): PictureWish {
  const format = wish.format ?? folder?.format ?? 'png';
  const own = format === folder?.format;
  const maxBytes = wish.maxBytes ?? folder?.maxBytes ?? undefined;
  return {
    format,
    quality: wish.quality ?? folder?.quality ?? 85,
    options: wish.options ?? (own ? (folder?.options ?? {}) : {}),
    ...(wish.size ?? folder?.size ?? {}),
    ...(maxBytes && { maxBytes }),
    background: wish.background,
    ...(folder && { facts: folder.facts }),
    ...(folder?.look && { look: folder.look }),
  };
}
