import { expect, test } from '@jest/globals';
import { markSchema } from '@/core/marks/registry';
import { closeSql } from '@/server/db/sql';
import { busyPng } from '@/tests/lib/pictures';
import { everyValue, filesHolding } from '@/tests/lib/stored';
import { read } from './lib/app';
import { appUrl } from './lib/browser';
import { app, browser, inOneBrowser, marking } from './lib/suite';

inOneBrowser();

const SECRET = 'tank code 4711';

/** Which of the browser's own stores hold words or bytes; run in the page. */
const HOLDING = `
  const [wanted, done] = arguments;
  const bytesOf = async (value) =>
    value instanceof Blob ? new Uint8Array(await value.arrayBuffer())
    : ArrayBuffer.isView(value) ? new Uint8Array(value.buffer)
    : value instanceof ArrayBuffer ? new Uint8Array(value) : null;
  const latin = (bytes) => { let all = ''; for (const byte of bytes) all += String.fromCharCode(byte); return all; };
  const textOf = async (value) => {
    const bytes = await bytesOf(value);
    if (bytes) return latin(bytes);
    if (value === null || typeof value !== 'object') return String(value);
    return (await Promise.all(Object.values(value).map(textOf))).join(' ');
  };
  (async () => {
    const stores = { local: await textOf({ ...localStorage }), session: await textOf({ ...sessionStorage }) };
    for (const name of await caches.keys()) {
      const cache = await caches.open(name);
      for (const request of await cache.keys())
        stores[name + request.url] = await textOf(await (await cache.match(request)).arrayBuffer());
    }
    for (const { name } of await indexedDB.databases()) {
      const db = await new Promise((ok) => { const ask = indexedDB.open(name); ask.onsuccess = () => ok(ask.result); });
      for (const store of db.objectStoreNames) {
        const rows = await new Promise((ok) => { const ask = db.transaction(store).objectStore(store).getAll(); ask.onsuccess = () => ok(ask.result); });
        stores[name + ' ' + store] = await textOf(rows);
      }
      db.close();
    }
    done(Object.keys(stores).filter((name) => wanted.some((one) => stores[name].includes(one))));
  })();`;

/** Where words or bytes are: in which tables' values, files and stores of the browser. */
async function found(wanted: readonly Buffer[]): Promise<string[]> {
  const { words, blobs } = await everyValue();
  const inTables = wanted.some((one) => words.includes(one.toString('latin1')));
  const inBlobs = blobs.some((blob) => wanted.some((one) => blob.includes(one)));
  const files = wanted.flatMap((one) => filesHolding(process.env.REZZIK_DATA ?? '', one));
  const stores = await browser.driver.executeAsyncScript<string[]>(
    HOLDING,
    wanted.map((one) => one.toString('latin1')),
  );
  return [...(inTables ? ['words'] : []), ...(inBlobs ? ['bytes'] : []), ...files, ...stores];
}

test('what is dropped for good through the page is in no table, no file and no store of the browser', async () => {
  const words = { kind: 'text', x: 120, y: 120, width: 160, textSize: 14 } as const;
  const id = await marking.open(
    [
      markSchema.parse({ ...words, id: 'secret', text: SECRET, colour: '#000000' }),
      markSchema.parse({ id: 'h', kind: 'blur', x: 100, y: 100, width: 220, height: 80 }),
    ],
    await busyPng(600, 400, 4711),
  );
  const frame = Buffer.from(await (await read(`/api/shots/${id}/frame`)).arrayBuffer());
  // What its middle rows became in the file, which no other picture has.
  const middle = frame.length >> 1;
  const wanted = [Buffer.from(SECRET), frame.subarray(middle, middle + 40)];
  await app.keys('b');
  await marking.drag(400, 50, 500, 100);
  await marking.marksOf(id);
  await read(`/api/shots/${id}/thumbnail`);
  await fetch(`${appUrl()}/api/shots/${id}/mail`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ drop: true, text: SECRET }),
  });
  // The search finds what is there.
  await browser.driver.executeScript('localStorage.probe = arguments[0]', SECRET);
  const before = await found(wanted);
  expect(before).toEqual(['words', 'bytes', expect.stringContaining('mail-drop'), 'local']);
  await browser.driver.executeScript('delete localStorage.probe');
  await app.click('Drop the rest for good …');
  await app.click('Drop it');
  await app.until('the drop', async () => (await marking.marksOf(id)).length === 1);
  // The question goes once all of it is done.
  await app.until('the end of it', async () => !(await app.has('[role="dialog"]')));
  await app.stage();
  expect(await found(wanted)).toEqual([]);
  await closeSql();
}, 60_000);
