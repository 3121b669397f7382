import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { readFile, readdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Parser } from 'commonmark';
import sharp from 'sharp';
import { guideSchema, type GuideFormat } from '@/core/contracts/guide';
import { linkInputSchema } from '@/core/contracts/link';
import { besides, dropTheRest } from '../erase/dropRest';
import { addFolder } from '../folders/folders';
import { addGuide, changeGuide, removeGuide } from '../guides/guides';
import { keepGuide } from '../guides/keep';
import { linkGuide } from '../guides/link';
import { answerLink } from '../links/answer';
import { getShot } from '../shots/rows';
import { binShot, eraseShot } from '../shots/store';
import { begin, finish, testFolder } from './setup';
import { run, ABOUT, shot, seeds, stepOf, onDisk, wellFormed } from './seeds';

beforeAll(begin);
afterAll(finish);
jest.setTimeout(120_000);

describe('kept', () => {
  test('in a folder, never over another file; Markdown with its pictures beside it', async () => {
    const { id } = await seeds();
    const path = testFolder('guides');
    const folder = await addFolder({ name: 'Kept guides', path });
    const keep = (formats: GuideFormat[]) => keepGuide(id, { folderId: folder.id, formats });
    const first = await keep(['html', 'markdown']);
    expect(first.files.map(({ path: at }) => at)).toEqual([
      join(path, 'Ordering seeds.html'),
      join(path, 'Ordering seeds.md'),
    ]);
    const html = await readFile(join(path, 'Ordering seeds.html'));
    const again = await keep(['html', 'markdown']);
    expect(again.files.map(({ path: at }) => at)).toEqual([
      join(path, 'Ordering seeds-2.html'),
      join(path, 'Ordering seeds-2.md'),
    ]);
    expect(await readFile(join(path, 'Ordering seeds.html'))).toEqual(html);
    const inside = ['01 Open.png', '02 Print & close.png', '03 End -b.png'];
    for (const name of ['Ordering seeds', 'Ordering seeds-2'])
      expect((await readdir(join(path, name))).sort()).toEqual(inside);
    expect((await readdir(path)).filter((name) => name.endsWith('.part'))).toEqual([]);
    // The CommonMark reference parser finds each picture where it lies.
    const parsed = new Parser().parse(await readFile(join(path, 'Ordering seeds-2.md'), 'utf8'));
    const walker = parsed.walker();
    const found: string[] = [];
    for (let event = walker.next(); event; event = walker.next()) {
      if (event.entering && event.node.type === 'image')
        found.push(decodeURIComponent(event.node.destination ?? ''));
    }
    expect(found).toEqual(inside.map((name) => `Ordering seeds-2/${name}`));
    for (const name of found) expect((await sharp(join(path, name)).metadata()).width).toBe(240);
  });

  test('what it shows there and by link is named to whoever drops the rest of a shot', async () => {
    const guide = await seeds();
    const path = testFolder('guides-named');
    const folder = await addFolder({ name: 'Named guides', path });
    await keepGuide(guide.id, { folderId: folder.id, formats: ['html'] });
    await linkGuide(guide.id, linkInputSchema.parse({}));
    const { copies, links } = await besides(stepOf(guide, 1).shot);
    expect(copies).toEqual([join(path, 'Ordering seeds.html')]);
    expect(links).toBe(1);
  });

  test('where the name of its text alone is taken, no folder of pictures is left behind', async () => {
    const { id } = await seeds();
    const path = testFolder('guides-taken');
    await writeFile(join(path, 'Ordering seeds.md'), 'Mine');
    const folder = await addFolder({ name: 'Taken guides', path });
    await keepGuide(id, { folderId: folder.id, formats: ['markdown'] });
    expect((await readdir(path)).sort()).toEqual([
      'Ordering seeds-2',
      'Ordering seeds-2.md',
      'Ordering seeds.md',
    ]);
  });

  test('in a folder that cannot be written to, it says so and leaves nothing', async () => {
    const { id } = await seeds();
    const path = testFolder('guides-gone');
    const folder = await addFolder({ name: 'Gone guides', path });
    const { rm } = await import('node:fs/promises');
    await rm(path, { recursive: true });
    await expect(keepGuide(id, { folderId: folder.id, formats: ['html'] })).rejects.toMatchObject({
      code: 'folder-missing',
    });
  });

  // poppler’s reader of structure; qpdf for the file itself.
  test('PDF has headings, alternative texts, contents and page numbers', async () => {
    const path = await onDisk((await seeds()).id, 'pdf');
    await run('qpdf', ['--check', path]);
    const { stdout: structure } = await run('pdfinfo', ['-struct-text', path]);
    for (const words of [
      'TOC',
      '"Ordering seeds"',
      '"1 Open"',
      '"The order"',
      '"2–3 Print & close"',
    ])
      expect(structure).toContain(words);
    expect(structure.match(/^ {2}H2/gm)).toHaveLength(2);
    expect(structure.match(/^ {2}H3/gm)).toHaveLength(2);
    const { stdout: objects } = await run(
      'qpdf',
      ['--qdf', '--object-streams=disable', path, '-'],
      {
        encoding: 'latin1',
        maxBuffer: 50_000_000,
      },
    );
    expect(objects.match(new RegExp(`/Alt \\(${ABOUT}\\)`, 'g'))).toHaveLength(3);
    const { stdout: words } = await run('pdftotext', ['-layout', path, '-']);
    expect(words).toContain('Press Print (3) at once.');
    expect(words).toMatch(/• one/);
    expect(words).toMatch(/3 The button/);
    expect(words).toMatch(/\b1\s*\/\s*2\b/);
    expect(words).toMatch(/1 Open +2/);
  });

  test('a word of two thousand letters stays on the page, in every place', async () => {
    const made = await addGuide({ title: 'x'.repeat(300), shots: [await shot()] });
    const long = { heading: 'y'.repeat(300), caption: 'z'.repeat(2000) };
    const items = made.guide.items.map((item) => ({ ...item, ...long }));
    const guide = guideSchema.parse({ ...made.guide, items });
    await changeGuide(made.id, { revision: 1, guide });
    const path = await onDisk(made.id, 'pdf');
    const { stdout } = await run('pdftotext', ['-bbox', path, '-'], { maxBuffer: 20_000_000 });
    const rights = [...stdout.matchAll(/xMax="([\d.]+)"/g)].map(([, right]) => Number(right));
    expect(rights.length).toBeGreaterThan(20);
    expect(Math.max(...rights)).toBeLessThanOrEqual(595.28 - 50);
    const letters = [...stdout.matchAll(/>(z+)</g)].map(([, word]) => word?.length ?? 0);
    expect(letters.reduce((sum, length) => sum + length, 0)).toBe(2000);
  });

  // docx2txt, and Python’s expat.
  test('the document for word processors has words, pictures and alternative texts', async () => {
    const path = await onDisk((await seeds()).id, 'docx');
    const { stdout } = await run('docx2txt', [path, '-']);
    for (const words of [
      'Ordering seeds',
      'Print & close',
      'Press Print (3) at once.',
      '4 End <b>',
    ])
      expect(stdout).toContain(words);
    const folder = `${path}.files`;
    await run('unzip', ['-q', path, '-d', folder]);
    const xml = join(folder, 'word', 'document.xml');
    await wellFormed([
      xml,
      join(folder, 'word', 'styles.xml'),
      join(folder, '[Content_Types].xml'),
    ]);
    const words = await readFile(xml, 'utf8');
    expect(words.split(`descr="${ABOUT}"`)).toHaveLength(4);
    expect(words).toContain('w:val="Heading2"');
    const media = await readdir(join(folder, 'word', 'media'));
    // Equal pictures are there once.
    expect(media.length).toBeGreaterThan(0);
    expect((await sharp(join(folder, 'word', 'media', media[0] ?? '')).metadata()).width).toBe(240);
  });

  test('the book is a zip whose first entry says what it is, and whose parts are well-formed', async () => {
    const path = await onDisk((await seeds()).id, 'epub');
    const bytes = await readFile(path);
    // EPUB 3.3 OCF, § 4.3: the first entry is stored, so that its words stand here.
    expect(bytes.subarray(30, 58).toString()).toBe('mimetypeapplication/epub+zip');
    await run('unzip', ['-tq', path]);
    const folder = `${path}.files`;
    await run('unzip', ['-q', path, '-d', folder]);
    const epub = join(folder, 'EPUB');
    const parts = ['package.opf', 'nav.xhtml', 'guide.xhtml'].map((name) => join(epub, name));
    await wellFormed([...parts, join(folder, 'META-INF', 'container.xml')]);
    expect(await readdir(join(epub, 'pictures'))).toHaveLength(3);
    expect(await readFile(join(epub, 'nav.xhtml'), 'utf8')).toContain('guide.xhtml#at-h');
  });

  test('Markdown is handed out as a zip that holds its pictures', async () => {
    const path = await onDisk((await seeds()).id, 'markdown');
    const { stdout } = await run('unzip', ['-l', path]);
    expect(path).toMatch(/Ordering seeds\.zip$/);
    expect(stdout).toMatch(/Ordering seeds\.md/);
    expect(stdout.match(/\.png/g)).toHaveLength(3);
  });
});

describe('by link', () => {
  const seen = async (path: string) => {
    const { status, body, headers } = await answerLink(path);
    return { status, words: Buffer.from(body).toString(), headers };
  };

  test('the whole guide is seen as it was then, under a policy that runs nothing', async () => {
    const guide = await seeds();
    const { path, title } = await linkGuide(guide.id, linkInputSchema.parse({}));
    expect(title).toBe('Ordering seeds');
    const { status, words, headers } = await seen(path);
    expect([status, headers['Content-Security-Policy']]).toEqual([
      200,
      expect.stringContaining("default-src 'none'"),
    ]);
    expect(words).toContain('2–3 Print &amp; close');
    expect(words.match(/data:image\/png/g)).toHaveLength(3);
    await removeGuide(guide.id);
    expect((await seen(path)).status).toBe(404);
  });

  test('it ends when one of its shots is deleted for good, or what that hides is dropped', async () => {
    const guide = await seeds();
    const link = async () => (await linkGuide(guide.id, linkInputSchema.parse({}))).path;
    const before = await link();
    const { shot: first } = stepOf(guide, 0);
    const { revision } = await getShot(first);
    await dropTheRest(first, revision, false);
    expect((await seen(before)).status).toBe(404);
    const after = await link();
    await binShot(first);
    expect((await seen(after)).status).toBe(200);
    await eraseShot(first);
    expect((await seen(after)).status).toBe(404);
  });
});
