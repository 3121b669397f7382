import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { execFile } from 'node:child_process';
import { mkdtemp, readFile, readdir, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { Parser } from 'commonmark';
import sharp from 'sharp';
import { guideSchema, type GuideFormat, type StoredGuide } from '@/core/contracts/guide';
import { linkInputSchema } from '@/core/contracts/link';
import { untouched } from '@/core/document/view';
import { markSchema, type Mark } from '@/core/marks/registry';
import { dropTheRest } from '../erase/dropRest';
import { addFolder } from '../folders/folders';
import { guideFile } from '../guides/file';
import { addGuide, changeGuide, getGuide, listGuides, removeGuide } from '../guides/guides';
import { keepGuide } from '../guides/keep';
import { linkGuide } from '../guides/link';
import { readyGuide } from '../guides/write';
import { encodeShot } from '../keep/encode';
import { answerLink } from '../links/answer';
import { listLooks } from '../looks/looks';
import { changeShot } from '../shots/change';
import { getPaintable, getShot } from '../shots/rows';
import { binShot, eraseShot, restoreShot, storeShot } from '../shots/store';
import { begin, finish, gradient, testFolder } from './setup';

beforeAll(begin);
afterAll(finish);
jest.setTimeout(120_000);

const run = promisify(execFile);
const SIZE = { width: 240, height: 160 };
const ABOUT = 'A form with two buttons';

const number = (id: string, caption: string, at: { x: number; y: number }) =>
  markSchema.parse({ id, kind: 'number', at, value: 1, colour: '#0072B2', caption });
const cover = markSchema.parse({
  ...{ id: 'cover', kind: 'cover', x: 100, y: 60, width: 120, height: 80, colour: '#000000' },
});

async function shot(marks: readonly Mark[] = [], data = gradient(SIZE.width, SIZE.height)) {
  const picture = await sharp(data, { raw: { ...SIZE, channels: 3 } })
    .png()
    .toBuffer();
  const document = { ...untouched(SIZE), marks: [...marks], description: ABOUT };
  const provenance = { source: 'display' as const, takenAt: '2026-11-23T14:02:11Z' };
  const { id } = await storeShot({ picture, title: 'Form', titleMade: true, document, provenance });
  return id;
}

/** Two numbers in the second picture, none in the others. */
async function seeds(): Promise<StoredGuide> {
  const second = await shot([
    number('a', 'The number', { x: 30, y: 30 }),
    number('b', 'The button', { x: 30, y: 90 }),
  ]);
  const made = await addGuide({
    title: 'Ordering seeds',
    shots: [await shot(), second, await shot()],
  });
  const items = made.guide.items.map((item, i) => ({
    ...item,
    heading: ['Open', 'Print & close', 'End <b>'][i],
    caption: [
      '',
      'Press **Print** ({2}) at *once*.\n\n- one\n- two',
      'See [there](https://a.test).',
    ][i],
  }));
  items.splice(1, 0, { kind: 'heading', id: 'h', text: 'The order' } as never);
  const guide = guideSchema.parse({ ...made.guide, items });
  return changeGuide(made.id, { revision: made.revision, guide });
}

const stepOf = ({ guide }: StoredGuide, nth: number) => {
  const step = guide.items.filter(({ kind }) => kind === 'step')[nth];
  if (step?.kind !== 'step') throw new Error('There is no such step.');
  return step;
};

/** A file of a guide on disk, for readers of other makers. */
async function onDisk(id: string, format: GuideFormat): Promise<string> {
  const { bytes, name } = await guideFile(id, format);
  const path = join(await mkdtemp(join(tmpdir(), 'rezzik-guide-')), name);
  await writeFile(path, bytes);
  return path;
}

/** Python's own reader of XML (expat) refuses what is not well-formed. */
const wellFormed = (paths: readonly string[]) =>
  run('python3', [
    '-c',
    'import sys, xml.dom.minidom as m\nfor p in sys.argv[1:]: m.parse(p)',
    ...paths,
  ]);

describe('a guide', () => {
  test('is made of shots in their order, listed, changed and removed', async () => {
    const { id } = await seeds();
    const read = await getGuide(id);
    expect(read).toMatchObject({ title: 'Ordering seeds', revision: 2 });
    expect(read.shots.map(({ state, discs }) => [state, discs.length])).toEqual([
      ['there', 0],
      ['there', 2],
      ['there', 0],
    ]);
    const [first] = (await listGuides()).filter((one) => one.id === id);
    expect(first).toMatchObject({ steps: 3, cover: { id: stepOf(read, 0).shot } });
    await removeGuide(id);
    await expect(getGuide(id)).rejects.toThrow('There is no such guide.');
    expect((await getShot(stepOf(read, 0).shot)).title).toBe('Form');
  });

  test('changed in two tabs: the second is told, with what is stored', async () => {
    const { id, revision } = await seeds();
    const [one, other] = await Promise.allSettled([
      changeGuide(id, { revision, title: 'One' }),
      changeGuide(id, { revision, title: 'Other' }),
    ]);
    const refused = [one, other].filter(({ status }) => status === 'rejected');
    expect(refused).toHaveLength(1);
    const [{ reason } = { reason: null }] = refused as PromiseRejectedResult[];
    expect(reason).toMatchObject({ status: 409, code: 'stale' });
    expect((reason as { more: { current: StoredGuide } }).more.current.revision).toBe(revision + 1);
  });

  test('of shots that are binned or not there is refused; what goes later is left out', async () => {
    const gone = await shot();
    await binShot(gone);
    await expect(addGuide({ shots: [gone] })).rejects.toThrow('There is no such shot.');
    const guide = await seeds();
    const { shot: second } = stepOf(guide, 1);
    await binShot(second);
    expect((await getGuide(guide.id)).shots[1]?.state).toBe('in the bin');
    const { material, left } = await readyGuide(guide.id);
    expect(left).toBe(1);
    expect(material.page.parts.map((part) => part.kind === 'step' && part.span)).toEqual([
      '1',
      false,
      '2',
    ]);
    await restoreShot(second);
    expect((await readyGuide(guide.id)).left).toBe(0);
    await binShot(second);
    await eraseShot(second);
    expect((await getGuide(guide.id)).shots[1]).toMatchObject({ state: 'gone', discs: [] });
  });

  test('numbers run on in the picture itself, also when it was just painted for another place', async () => {
    const { shot: second } = stepOf(await seeds(), 1);
    const [alone, again, later] = await Promise.all(
      [undefined, undefined, 2].map(async (first) => {
        const { bytes } = await encodeShot(await getPaintable(second), { format: 'png', first });
        return sharp(bytes).raw().toBuffer();
      }),
    );
    expect(again).toEqual(alone);
    expect(later).not.toEqual(alone);
  });

  test('takes up a changed shot, one look and one size for all', async () => {
    const guide = await seeds();
    const [look] = await listLooks();
    const small = { ...guide.guide, longest: 120, look: look?.id ?? null };
    await changeGuide(guide.id, { revision: guide.revision, guide: small });
    const pictures = [...(await readyGuide(guide.id)).material.pictures.values()];
    expect(pictures.map(({ width, height }) => Math.max(width, height))).toEqual([120, 120, 120]);
    const { shot: first } = stepOf(guide, 0);
    const { document, revision } = await getShot(first);
    const marks = [number('n', 'New', { x: 40, y: 40 })];
    await changeShot(first, { revision, document: { ...document, marks } });
    const again = (await readyGuide(guide.id)).material;
    expect(again.pictures.get(stepOf(guide, 0).id)?.png).not.toEqual(pictures[0]?.png);
    expect(again.page.parts[0]).toMatchObject({ numbers: [{ written: '1', caption: 'New' }] });
  });

  test('holds nothing of what is hidden: two frames that differ only there give the same files', async () => {
    const data = gradient(SIZE.width, SIZE.height);
    const other = new Uint8Array(data);
    for (let y = 62; y < 138; y += 1)
      for (let x = 102; x < 218; x += 1) other[(y * SIZE.width + x) * 3] = 7;
    expect(other).not.toEqual(data);
    const below = number('s', 'Secret 471147', { x: 130, y: 100 });
    const [one, two] = await Promise.all([shot([below, cover], data), shot([below, cover], other)]);
    const made = await addGuide({ title: 'Hidden', shots: [one] });
    const written = async (id: string) => {
      const now = await getGuide(made.id);
      const items = [{ kind: 'step', id: 's', shot: id, heading: 'H', caption: '{1}' }];
      await changeGuide(made.id, {
        revision: now.revision,
        guide: guideSchema.parse({ version: 1, items }),
      });
      const { bytes } = await guideFile(made.id, 'html');
      return {
        html: Buffer.from(bytes).toString(),
        pictures: (await readyGuide(made.id)).material.pictures,
      };
    };
    const [a, b] = [await written(one), await written(two)];
    expect(a).toEqual(b);
    expect(a.html).not.toContain('471147');
    expect((await getGuide(made.id)).shots[0]?.discs).toEqual([
      { counting: 'numbers', caption: '' },
    ]);
  });
});

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
