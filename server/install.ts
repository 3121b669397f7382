import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { kindLabels } from '@/core/contracts/way';
import { Fault } from './http/fault';
import { listRoutines } from './routines/routines';

export const iconSizes = [192, 512] as const;

/** Shortcuts that systems show; more are cut off anyway. */
const SHORTCUTS = 4;

/** What a browser needs to install Rezzik as an app (W3C, Web Application Manifest). */
export async function manifest(): Promise<object> {
  const routines = await listRoutines().catch(() => []);
  return {
    id: '/',
    name: 'Rezzik',
    short_name: 'Rezzik',
    description: 'Take a screenshot, mark it, keep it, find it again.',
    start_url: '/take',
    scope: '/',
    display: 'standalone',
    background_color: '#EFECE3',
    theme_color: '#FAF8F2',
    icons: iconSizes.map((size) => ({
      src: `/api/icons/${size}`,
      sizes: `${size}x${size}`,
      type: 'image/png',
      purpose: 'any',
    })),
    shortcuts: routines.slice(0, SHORTCUTS).map(({ id, name, way }) => ({
      name,
      description: kindLabels[way.kind],
      url: `/take?routine=${id}`,
    })),
    share_target: {
      action: '/api/share',
      method: 'POST',
      enctype: 'multipart/form-data',
      params: { title: 'title', files: [{ name: 'pictures', accept: ['image/*'] }] },
    },
    file_handlers: [
      {
        action: '/take',
        accept: {
          'image/png': ['.png'],
          'image/jpeg': ['.jpg', '.jpeg'],
          'image/webp': ['.webp'],
          'image/gif': ['.gif'],
          'image/tiff': ['.tif', '.tiff'],
          'image/bmp': ['.bmp'],
          'image/avif': ['.avif'],
        },
      },
    ],
  };
}

/** The app's icon as PNG, drawn beforehand from app/icon.svg: nothing here decodes drawings. @throws Fault 404 for a size that is not offered */
export async function icon(size: number): Promise<Buffer> {
  if (!iconSizes.some((offered) => offered === size)) {
    throw new Fault(404, 'not-found', 'There is no icon of that size.');
  }
  return readFile(join(process.cwd(), 'public', 'icons', `${size}.png`));
}
