import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { kindLabels } from '@/core/contracts/way';
import { Fault } from './base/fault';
import { listRoutines } from './routines/routines';

/** Pictures of the icon by name, with the pixels of a side; the last one fills any shape that a system cuts. */
const icons = [
  { name: '192', side: 192, purpose: 'any' },
  { name: '512', side: 512, purpose: 'any' },
  { name: 'maskable', side: 512, purpose: 'maskable' },
] as const;
const iconOf = ({ name, side, purpose }: (typeof icons)[number]) => ({
  src: `/api/icons/${name}`,
  sizes: `${side}x${side}`,
  type: 'image/png',
  purpose,
});

/** The kinds of file that are read, by their usual endings. */
const readable = {
  'image/png': ['.png'],
  'image/jpeg': ['.jpg', '.jpeg'],
  'image/webp': ['.webp'],
  'image/gif': ['.gif'],
  'image/tiff': ['.tif', '.tiff'],
  'image/bmp': ['.bmp'],
  'image/avif': ['.avif'],
};

const films = {
  'video/webm': ['.webm'],
  'video/mp4': ['.mp4', '.m4v'],
  'video/x-matroska': ['.mkv'],
};

/** Shortcuts that systems show; more are cut off anyway. */
const SHORTCUTS = 4;

/** What a browser needs to install Rezzik as an app (W3C, Web Application Manifest). */
export async function manifest(): Promise<object> {
  const routines = (await listRoutines().catch(() => [])).filter((r) => !r.unconfirmed);
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
    icons: icons.map(iconOf),
    shortcuts: routines.slice(0, SHORTCUTS).map(({ id, name, way }) => ({
      name,
      description: kindLabels[way.kind],
      url: `/take?routine=${id}`,
      icons: [iconOf(icons[0])],
    })),
    share_target: {
      action: '/api/share',
      method: 'POST',
      enctype: 'multipart/form-data',
      params: { title: 'title', files: [{ name: 'pictures', accept: Object.keys(readable) }] },
    },
    file_handlers: [{ action: '/take', accept: { ...readable, ...films } }],
  };
}

/** The app's icon as PNG, drawn beforehand from app/icon.svg: nothing here decodes drawings. @throws Fault 404 for one that is not offered */
export async function icon(wanted: string): Promise<Buffer> {
  const found = icons.find(({ name }) => name === wanted);
  if (!found) throw new Fault(404, 'not-found', 'There is no such icon.');
  return readFile(join(process.cwd(), 'public', 'icons', `${found.name}.png`));
}
