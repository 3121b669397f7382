import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { createCanvas } from '@napi-rs/canvas';
import { By } from 'selenium-webdriver';
import { folderSchema } from '@/core/contracts/folder';
import { sendingsSchema } from '@/core/contracts/remote';
import { read, sendShot, WAIT, type App } from './app';
import { appUrl, type Browser } from './browser';
import { browser } from './suite';

/** A picture with letters, large enough for a loss to be seen. */
export function lettered(): Buffer {
  const canvas = createCanvas(400, 240);
  const surface = canvas.getContext('2d');
  const fill = (colour: string) => (surface.fillStyle = colour);
  fill('#FFFFFF');
  surface.fillRect(0, 0, 400, 240);
  fill('#1C2B2A');
  surface.font = '28px sans-serif';
  surface.fillText('Pond edge, bed 12', 20, 60);
  surface.font = '15px sans-serif';
  surface.fillText('Marsh marigold, checked by Wren', 20, 110);
  fill('#D55E00');
  surface.fillRect(20, 150, 180, 50);
  return canvas.toBuffer('image/png');
}

/** Opens Keep on a new shot with every place switched off. */
export async function openKeep(app: App, title: string, picture?: Buffer): Promise<string> {
  const id = await sendShot(picture ?? lettered(), title);
  await app.go(`/shots/${id}/keep`);
  await app.named('Clipboard');
  const on = By.css('section[aria-label="Where"] [role="switch"][aria-checked="true"]');
  for (const place of await app.driver.findElements(on)) await place.click();
  return id;
}

const json = async (path: string): Promise<unknown> => (await read(path)).json();

/** Waits until the page says what became of a shot's copy, and until it was sent. */
export async function isSent(app: App, shot: string, remote: string): Promise<void> {
  // A machine that is busy sends it a little later, and says so.
  const said = new RegExp(`(Sent to ${remote}: |Waits for ${remote}\\. )`);
  await app.until(`words on ${remote}`, async () =>
    said.test(await app.driver.findElement(By.css('body')).getText()),
  );
  let last = '';
  const arrived = async () => {
    const { sendings } = sendingsSchema.parse(await json(`/api/shots/${shot}/sendings`));
    last = JSON.stringify(sendings);
    const mine = sendings.filter((one) => one.remoteName === remote);
    // One that had to wait is tried again, as a person would, who does not wait for the next pause.
    for (const { id, state, problem } of mine)
      if (state === 'waiting' && problem)
        await fetch(`${appUrl()}/api/sendings/${id}`, { method: 'POST' });
    return mine.some(({ state }) => state === 'sent');
  };
  // Each try may take its time there.
  await app.until(`sent to ${remote}`, arrived, 3 * WAIT).catch((error: unknown) => {
    throw new Error(`${String(error)} ${last}`);
  });
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

/** From now on the open page hears nothing of what ends so, until that is let come. */
export async function heldBack(path: string): Promise<{ comes: () => Promise<void> }> {
  await browser.driver.executeScript(
    `const ask = window.fetch.bind(window);
     const comes = new Promise((come) => { window.letCome = come; });
     window.fetch = async (where, how) => {
       if (String(where).endsWith(arguments[0])) await comes;
       return ask(where, how);
     };`,
    path,
  );
  return { comes: () => browser.driver.executeScript('window.letCome();') };
}
