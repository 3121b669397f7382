import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { By } from 'selenium-webdriver';
import { folderSchema } from '@/core/contracts/folder';
import { sendShot, type App } from './app';
import { appUrl, type Browser } from './browser';

/** A picture with letters, large enough for a loss to be seen. */
export function lettered(): Promise<Buffer> {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="400" height="240"><rect width="400" height="240" fill="#fff"/><g font-family="sans-serif" fill="#1c2b2a"><text x="20" y="60" font-size="28">Pond edge, bed 12</text><text x="20" y="110" font-size="15">Marsh marigold, checked by Wren</text></g><rect x="20" y="150" width="180" height="50" fill="#D55E00"/></svg>`;
  return sharp(Buffer.from(svg)).png().toBuffer();
}

/** Opens Keep on a new shot with every place switched off. */
export async function openKeep(app: App, title: string, picture?: Buffer): Promise<string> {
  const id = await sendShot(picture ?? (await lettered()), title);
  await app.go(`/shots/${id}/keep`);
  await app.named('Clipboard');
  const on = By.css('section[aria-label="Where"] [role="switch"][aria-checked="true"]');
  for (const place of await app.driver.findElements(on)) await place.click();
  return id;
}

/** Whatever page is open may read and write the clipboard. */
export const allowClipboard = ({ driver }: Browser): Promise<void> =>
  driver.sendDevToolsCommand('Browser.grantPermissions', {
    permissions: ['clipboardReadWrite', 'clipboardSanitizedWrite'],
    origin: appUrl(),
  });

export const readClipboard = ({ driver }: Browser): Promise<string> =>
  driver.executeAsyncScript<string>(
    'const done = arguments[0]; navigator.clipboard.readText().then(done, (e) => done(String(e)));',
  );

/** A folder on disk below the allowed root, set up in Rezzik. */
export async function newFolder(name: string, more: object = {}) {
  const path = join(process.env.REZZIK_ROOTS ?? '', name.toLowerCase());
  mkdirSync(path, { recursive: true });
  const made = await fetch(`${appUrl()}/api/folders`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ name, path, pattern: '{title}', ...more }),
  });
  return folderSchema.parse(await made.json());
}
