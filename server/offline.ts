import { createHash } from 'node:crypto';
import { readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { allFontFiles, fontsVersion } from '@/core/drawing/harfbuzz';

/** Files for finding faults, which no page asks for. */
const NOT_NEEDED = /\.map$/;

/** The addresses of all files that the built app needs in a browser. */
async function appFiles(): Promise<string[]> {
  const folder = join(process.cwd(), process.env.REZZIK_DIST ?? '.next', 'static');
  const entries = await readdir(folder, { recursive: true, withFileTypes: true }).catch(() => []);
  const built = entries
    .filter((entry) => entry.isFile() && !NOT_NEEDED.test(entry.name))
    .map((entry) => join(entry.parentPath, entry.name).slice(folder.length))
    .map((path) => `/_next/static${path.split('/').map(encodeURIComponent).join('/')}`);
  const fonts = allFontFiles.map((name) => `/fonts/${name}?v=${fontsVersion}`);
  return [...built, ...fonts].sort();
}

/** Takes the place of one of a built app, and goes: while developing no page may be an older one. */
const GOING = `
self.addEventListener('install', () => self.skipWaiting());
self.addEventListener('activate', (event) => event.waitUntil(self.registration.unregister()));
`;

/** What the service worker holds of this build (public/offline.js). */
export async function serviceWorker(): Promise<string> {
  if (process.env.NODE_ENV === 'development') return GOING;
  const files = await appFiles();
  const version = createHash('sha256').update(files.join('\n')).digest('hex').slice(0, 16);
  return `const offline = ${JSON.stringify({ version, files })};\nimportScripts('/offline.js');\n`;
}
