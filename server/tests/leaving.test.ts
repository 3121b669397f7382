import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { existsSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { simpleParser } from 'mailparser';
import sharp from 'sharp';
import { formatNames, type FormatName } from '@/core/contracts/format';
import { linkInputSchema } from '@/core/contracts/link';
import { mailInputSchema } from '@/core/contracts/mail';
import { remoteInputSchema } from '@/core/contracts/remote';
import { markSchema } from '@/core/marks/registry';
import { randomFrom } from '@/core/random/random';
import { addFolder } from '../folders/folders';
import { keepCopy } from '../keep/copies';
import { listCopies } from '../keep/copyRows';
import { encodeShot } from '../keep/encode';
import { formats } from '../formats';
import { likenessOf, sameLooking, SAME } from '../keep/likeness';
import { renameCopies } from '../keep/renameCopies';
import { answerLink } from '../links/answer';
import { makeLink } from '../links/links';
import { messageFor } from '../mail/message';
import { thumbnail } from '../pictures/painted';
import { startPractice } from '../remote/practice';
import { sendTo } from '../remote/sendings';
import { addRemote } from '../remote/remotes';
import { changeShot } from '../shots/change';
import { getPaintable, getShot } from '../shots/rows';
import { renameShot, storeShot } from '../shots/store';
import { begin, finish, gradientPng, sizeOf, storeTelling, testFolder } from './setup';

const told = { source: 'display' as const, takenAt: '2026-11-23T14:02:11Z' };
let shot: string;
beforeAll(async () => {
  await begin();
  shot = await storeTelling();
});
afterAll(finish);
jest.setTimeout(90_000);

describe('size', () => {
  test.each([
    [{ width: 120 }, [120, 80]],
    [{ height: 40 }, [60, 40]],
    [{ percent: 50 }, [120, 80]],
    [{ longest: 60 }, [60, 40]],
    [{ longest: 6000 }, [240, 160]],
    [{ width: 100, height: 100 }, [100, 67]],
    [{ width: 100, height: 100, fit: 'fill' as const }, [100, 100]],
    [{ width: 300, height: 250, fit: 'pad' as const }, [300, 250]],
  ])('%j gives %j', async (wish, wanted) => {
    const { bytes, width, height } = await encodeShot(await getPaintable(shot), {
      format: 'png',
      ...wish,
    });
    expect(await sizeOf(bytes)).toEqual(wanted);
    expect([width, height]).toEqual(wanted);
  });

  // libvips through sharp on the same pixels.
  test('scaling is what sharp’s lanczos3 makes', async () => {
    const whole = await encodeShot(await getPaintable(shot), { format: 'png' });
    const ours = await encodeShot(await getPaintable(shot), { format: 'png', width: 97 });
    const theirs = await sharp(whole.bytes)
      .ensureAlpha()
      .resize({ width: 97, height: 65, fit: 'fill', kernel: 'lanczos3' })
      .raw()
      .toBuffer();
    const read = await sharp(ours.bytes).ensureAlpha().raw().toBuffer();
    const most = read.reduce((m, v, i) => Math.max(m, Math.abs(v - (theirs[i] ?? 0))), 0);
    expect(most).toBeLessThanOrEqual(1);
  });

  test('at most so many bytes: quality first, then size; what cannot be is said', async () => {
    const free = await encodeShot(await getPaintable(shot), { format: 'jpeg', quality: 95 });
    const some = await encodeShot(await getPaintable(shot), {
      format: 'jpeg',
      quality: 95,
      maxBytes: Math.round(free.bytes.length * 0.7),
    });
    expect(some.bytes.length).toBeLessThanOrEqual(Math.round(free.bytes.length * 0.7));
    expect(some.quality).toBeLessThan(95);
    expect([some.width, some.height]).toEqual([240, 160]);
    const few = await encodeShot(await getPaintable(shot), { format: 'png', maxBytes: 9_000 });
    expect(few.bytes.length).toBeLessThanOrEqual(9_000);
    expect(few.width).toBeLessThan(240);
    await expect(
      encodeShot(await getPaintable(shot), { format: 'bmp', maxBytes: 100 }),
    ).rejects.toMatchObject({
      code: 'cannot-be-that-small',
    });
  });
});

test('at most so many bytes takes eight encodings of a JPEG at most, whatever is allowed', async () => {
  const encode = jest.spyOn(formats.jpeg, 'encode');
  const { bytes } = await encodeShot(await getPaintable(shot), { format: 'jpeg', quality: 95 });
  try {
    for (const share of [1, 0.9, 0.6, 0.4, 0.25, 0.15, 0.1]) {
      encode.mockClear();
      const maxBytes = Math.round(bytes.length * share);
      const made = await encodeShot(await getPaintable(shot), {
        format: 'jpeg',
        quality: 95,
        maxBytes,
      });
      expect(made.bytes.length).toBeLessThanOrEqual(maxBytes);
      expect(encode.mock.calls.length).toBeLessThanOrEqual(8);
    }
  } finally {
    encode.mockRestore();
  }
});

describe('likeness', () => {
  test('is one for the very same, and falls with quality', async () => {
    expect(await likenessOf(await getPaintable(shot), { format: 'png' })).toMatchObject({
      likeness: 1,
      worst: null,
    });
    const [low, high] = [
      await likenessOf(await getPaintable(shot), { format: 'jpeg', quality: 10 }),
      await likenessOf(await getPaintable(shot), { format: 'jpeg', quality: 95 }),
    ];
    expect(low.likeness).toBeLessThan(high.likeness);
    expect(low.bytes).toBeLessThan(high.bytes);
    expect(low.worst?.likeness).toBeLessThan(low.likeness);
  });
  test('looks the same is the smallest that is like enough', async () => {
    const found = await sameLooking(await getPaintable(shot), { format: 'jpeg' });
    expect(found.likeness).toBeGreaterThanOrEqual(SAME.likeness);
    const less = await likenessOf(await getPaintable(shot), {
      format: 'jpeg',
      quality: found.quality - 1,
    });
    expect(less.likeness < SAME.likeness || less.low < SAME.low || found.quality === 20).toBe(true);
  });
});

test('a search for what looks the same can be stopped', async () => {
  const stop = AbortSignal.abort();
  await expect(sameLooking(await getPaintable(shot), { format: 'jpeg' }, stop)).rejects.toThrow(
    /abort/i,
  );
});

describe('nothing hidden leaves', () => {
  const inside = { width: 160, height: 120 };
  /** A frame of noise; two of them differ only under a Hide mark and outside the view. */
  async function telling(seed: number): Promise<string> {
    const [hidden, shown] = [randomFrom(seed), randomFrom(77)];
    const data = Buffer.alloc(inside.width * inside.height * 3);
    for (let y = 0; y < inside.height; y += 1)
      for (let x = 0; x < inside.width; x += 1) {
        const covered = (x >= 50 && x < 100 && y >= 40 && y < 80) || x < 20 || y < 10;
        const next = covered ? hidden : shown;
        data.set([next() * 256, next() * 256, next() * 256], (y * inside.width + x) * 3);
      }
    const picture = await sharp(data, { raw: { ...inside, channels: 3 } })
      .png()
      .toBuffer();
    const { id } = await storeShot({
      picture,
      title: 'Order',
      provenance: { source: 'display', takenAt: '2026-11-23T14:02:11Z' },
      document: {
        version: 6,
        view: { crop: { x: 20, y: 10, width: 140, height: 110 } },
        description: 'An order.',
        marks: [
          {
            id: 't',
            kind: 'text',
            x: 55,
            y: 50,
            width: 100,
            text: `PIN ${seed}`,
            colour: '#000000',
            textSize: 9,
            bold: false,
            plate: null,
          },
          { id: 'h', kind: 'blur', x: 50, y: 40, width: 50, height: 40, strength: 8 },
          {
            id: 'a',
            kind: 'arrow',
            from: { x: 140, y: 100 },
            to: { x: 110, y: 60 },
            bend: null,
            colour: '#D55E00',
            thickness: 4,
            heads: 'end',
          },
        ].map((mark) => markSchema.parse(mark)),
      },
    });
    return id;
  }

  test.each([...formatNames])(
    'as %s two shots that differ only in what is hidden are the same',
    async (format: FormatName) => {
      const [a, b] = [await telling(101), await telling(202)];
      const plain = (bytes: Uint8Array) =>
        // A PDF names itself by the time it was made.
        Buffer.from(bytes)
          .toString('latin1')
          .replace(/\/ID \[[^\]]*\]/g, '')
          .replace(/\(D:\d{14}Z?\)/g, '');
      const [first, second] = [
        await encodeShot(await getPaintable(a), { format }),
        await encodeShot(await getPaintable(b), { format }),
      ];
      expect(plain(first.bytes) === plain(second.bytes)).toBe(true);
      expect(Buffer.from(first.bytes).includes('PIN 101')).toBe(false);
    },
  );

  test('by link, by mail, to a remote folder and as a thumbnail they are the same, too', async () => {
    const { server, port } = await startPractice({
      folder: testFolder('hidden-remote'),
      username: 'wren',
      password: 'fern',
    });
    const remote = await addRemote(
      remoteInputSchema.parse({
        name: 'Hidden',
        url: `http://127.0.0.1:${port}/`,
        username: 'wren',
        password: 'fern',
        pattern: '{n}',
      }),
    );
    const leaving = async (seed: number): Promise<Record<string, Uint8Array | undefined>> => {
      const id = await telling(seed);
      const link = await makeLink(id, linkInputSchema.parse({}));
      const message = await simpleParser((await messageFor(id, mailInputSchema.parse({}))).bytes);
      const sent = await sendTo(id, remote.id);
      expect(sent.state).toBe('sent');
      return {
        page: (await answerLink(link.path)).body,
        picture: (await answerLink(link.picturePath)).body,
        message: message.attachments[0]?.content,
        sent: readFileSync(join(testFolder('hidden-remote'), sent.name)),
        thumbnail: await thumbnail(id),
      };
    };
    const [first, second] = [await leaving(303), await leaving(404)];
    for (const place of Object.keys(first)) {
      const [a, b] = [first[place], second[place]];
      expect([place, a && b && Buffer.from(a).equals(b)]).toEqual([place, true]);
    }
    server.close();
  });

  test('a name made from a window’s title stays here until a person confirms it', async () => {
    const title = 'Window 3, Secret garden plan';
    const { id } = await storeShot({
      picture: await gradientPng(40, 30),
      title,
      titleMade: true,
      provenance: { ...told, windowTitle: 'Secret garden plan' },
    });
    const leaves = async () => {
      const link = await makeLink(id, linkInputSchema.parse({ words: true }));
      const { bytes: message } = await messageFor(id, mailInputSchema.parse({}));
      const { bytes } = await encodeShot(await getPaintable(id), { format: 'png' });
      const page = Buffer.from((await answerLink(link.path)).body).toString('utf8');
      return [page, message.toString('latin1'), Buffer.from(bytes).toString('latin1')];
    };
    for (const text of await leaves()) {
      expect(text).not.toContain('Secret garden');
      expect(text).toContain('Window 3');
    }
    await renameShot(id, title);
    for (const text of await leaves()) expect(text).toContain('Secret garden plan');
  });

  test('a link, a message and a copy carry neither address nor window title', async () => {
    const secrets = ['Secret garden plan', 'inside.fernhollow', '471147'];
    const { path: folderPath, id: folderId } = await addFolder({
      name: 'Plain',
      path: testFolder('plain-facts'),
    });
    const copy = await keepCopy(shot, { folderId });
    const link = await makeLink(shot, linkInputSchema.parse({}));
    const page = await answerLink(link.path);
    const picture = await answerLink(link.picturePath);
    const { bytes: message } = await messageFor(
      shot,
      mailInputSchema.parse({ to: 'wren@fernhollow.example' }),
    );
    const sent = await simpleParser(message);
    const all = [
      readFileSync(copy.path),
      Buffer.from(page.body),
      Buffer.from(picture.body),
      message,
      sent.attachments[0]?.content ?? Buffer.alloc(0),
    ];
    for (const bytes of all)
      for (const secret of secrets) expect(bytes.includes(secret)).toBe(false);
    expect(folderPath).toContain('plain-facts');
  });

  test('a folder whose rule says so gets them', async () => {
    const { id: folderId } = await addFolder({
      name: 'Records',
      path: testFolder('with-facts'),
      facts: { words: true, origin: true },
    });
    const copy = await keepCopy(shot, { folderId });
    expect(readFileSync(copy.path).includes('inside.fernhollow')).toBe(true);
  });
});

describe('names', () => {
  test('a clock that was set back gives names anew: numbers part them, nothing is overwritten', async () => {
    const { id: folderId, path } = await addFolder({
      name: 'Clock',
      path: testFolder('clock'),
      pattern: '{title} {date} {time}',
    });
    const keepAt = async (now: string) => {
      const picture = await gradientPng(20, 20);
      const { id } = await storeShot({ picture, title: 'Clock' }, new Date(now));
      return (await keepCopy(id, { folderId })).path;
    };
    const paths = [
      await keepAt('2026-11-25T10:00:00Z'),
      await keepAt('2026-11-25T09:00:00Z'),
      await keepAt('2026-11-25T10:00:00Z'),
    ];
    expect(paths[2]).toBe((paths[0] ?? '').replace('.png', '-2.png'));
    expect(readdirSync(path)).toHaveLength(3);
    for (const kept of paths) expect(await sizeOf(readFileSync(kept))).toEqual([20, 20]);
  });

  test('a pattern makes subfolders inside the folder only', async () => {
    const deep = { name: 'Deep', path: testFolder('deep') };
    await expect(
      addFolder({ ...deep, pattern: '{date:yyyy}/../{title:lower,-}/{n:2}' }),
    ).rejects.toThrow('copies stay in their folder');
    const { id: folderId, path } = await addFolder({
      ...deep,
      pattern: '{date:yyyy}/{title:lower,-}/{n:2}',
    });
    const copy = await keepCopy(shot, { folderId });
    expect(copy.path.startsWith(`${path}/2026/`)).toBe(true);
    expect(copy.path.endsWith('/beds/01.png')).toBe(true);
    expect(copy.path).not.toContain('/../');
  });

  test('a rename takes the files along, never over another', async () => {
    const { id: folderId, path } = await addFolder({
      name: 'Rename',
      path: testFolder('rename'),
      pattern: '{title}',
    });
    const { id } = await storeShot({ picture: await gradientPng(20, 20), title: 'Old name' });
    const [a, gone] = [await keepCopy(id, { folderId }), await keepCopy(id, { folderId })];
    writeFileSync(join(path, 'New name.png'), 'somebody else’s');
    rmSync(gone.path);
    // Any time later: the files follow from their own name, over others in between.
    for (const title of ['Second', 'Third', 'New name']) await renameShot(id, title);
    expect((await listCopies(id)).map((copy) => copy.behind)).toEqual([true, true]);
    const done = await renameCopies(id, 'New name');
    expect(done.renamed).toBe(1);
    expect(done.left).toEqual([{ path: gone.path, problem: 'it is not there any more' }]);
    expect(existsSync(a.path)).toBe(false);
    expect(readFileSync(join(path, 'New name.png'), 'utf8')).toBe('somebody else’s');
    expect(statSync(join(path, 'New name-2.png')).size).toBe(a.bytes);
    expect((await listCopies(id)).find((copy) => copy.path !== gone.path)?.behind).toBe(false);
    await renameShot(id, 'Newest name');
    expect((await renameCopies(id, 'Newest name')).renamed).toBe(1);
    expect(existsSync(join(path, 'Newest name-2.png'))).toBe(true);
  });

  test('storing what was drawn never undoes a name', async () => {
    const { id, revision } = await storeShot({
      picture: await gradientPng(20, 20),
      title: 'First name',
    });
    await renameShot(id, 'Better name');
    const { document } = await getShot(id);
    await changeShot(id, { revision, document });
    expect(await getShot(id)).toMatchObject({ title: 'Better name', titleOwn: true });
  });
});
