import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import type { Clip } from '@/core/contracts/clip';
import { guideSchema, type Guide, type GuideFormat } from '@/core/contracts/guide';
import { linkInputSchema, linkSchema } from '@/core/contracts/link';
import { untouched } from '@/core/document/view';
import { markSchema } from '@/core/marks/registry';
import * as one from '@/app/api/clips/[id]/route';
import { POST as links } from '@/app/api/clips/[id]/links/route';
import type { HowFar } from '../base/howFar';
import { shared } from '../base/shared';
import { addFolder } from '../folders/folders';
import { guideFile } from '../guides/file';
import { addGuide, changeGuide, getGuide } from '../guides/guides';
import { keepGuide } from '../guides/keep';
import { linkGuide } from '../guides/link';
import { filmsOf } from '../guides/moving';
import { answerLink } from '../links/answer';
import { takeBack } from '../links/links';
import { mediaDir } from '../media/files';
import { changeShot } from '../shots/change';
import { film, HEIGHT, numberOn, picturesIn, shownIn, WIDTH } from './clipFilms';
import { recorded, wanted } from './clipLib';
import { number, shot } from './seeds';
import { at, begin, finish, jsonRequest, testFolder } from './setup';

beforeAll(begin, 60_000);
afterAll(finish);

const COUNT = 30;
const KEPT = Array.from({ length: COUNT - 7 }, (_, i) => i + 7);

/** A clip of which the start is cut away, with a number and, later, something hidden. */
async function clip(): Promise<Clip> {
  const made = await recorded(film(COUNT));
  const hidden = markSchema.parse({
    ...{ id: 'hide', kind: 'paintOut', x: 0, y: 0, width: WIDTH, height: 48 },
    ...{ paintOut: 'colour', colour: '#FFFFFF', time: { from: 20, to: 25 } },
  });
  const marks = [number('n', 'The list', { x: 80, y: 72 }), hidden];
  const document = { ...untouched({ width: WIDTH, height: HEIGHT }), marks };
  await changeShot(made.id, { revision: made.marksRevision, document });
  const change = { revision: 1, cuts: { away: [{ from: 0, to: 7 }] } };
  await one.PUT(jsonRequest('/x', 'PUT', change), at({ id: made.id }));
  return made;
}

/** A guide of a picture with two numbers, and a clip. */
async function guideOf(id: string, clips: Guide['clips'], longest: number | null = null) {
  const first = await shot([
    number('a', 'The number', { x: 30, y: 30 }),
    number('b', 'The button', { x: 30, y: 90 }),
  ]);
  const made = await addGuide({ title: 'Beds', shots: [first, id] });
  const guide = guideSchema.parse({ ...made.guide, clips, longest });
  return changeGuide(made.id, { revision: made.revision, guide });
}

/** What is written just now, or lies there of other tests. */
const beingMade = (): string[] =>
  readdirSync(mediaDir())
    .filter((name) => name.includes('.made.'))
    .sort();

const fileOf = async (id: string, format: GuideFormat): Promise<Buffer> =>
  Buffer.from((await guideFile(id, format)).bytes);

/** The film in a page, on the disk. */
function filmIn(page: string): string {
  const [, bytes = ''] = /<video src="data:video\/mp4;base64,([^"]+)"/.exec(page) ?? [];
  const path = join(testFolder('guide-film'), `${randomUUID()}.mp4`);
  writeFileSync(path, Buffer.from(bytes, 'base64'));
  return path;
}

test('a clip moves in the page and in Markdown as it leaves: cut, hidden, its number running on', async () => {
  const { id } = await clip();
  const before = beingMade();
  const guide = await guideOf(id, 'moving');
  const told = new Set<number>();
  const going = shared('guideFilms', () => new Map<string, HowFar>());
  const own = going.set.bind(going);
  const set = jest.spyOn(going, 'set').mockImplementation((key, howFar) => {
    own(key, howFar);
    told.add(filmsOf(guide.id)?.progress ?? NaN);
    return going;
  });
  const path = filmIn((await fileOf(guide.id, 'html')).toString());
  set.mockRestore();
  // How far it is is told while it is written, and no more after that.
  expect(told.size).toBeGreaterThan(1);
  expect(Math.max(...told)).toBeLessThanOrEqual(1);
  expect(filmsOf(guide.id)).toBeNull();
  const { numbers } = shownIn(path);
  expect(numbers).toEqual(KEPT.map((n) => (n >= 20 && n < 25 ? 1023 : n)));
  // Alone it is its first number, here it is the third.
  const alone = await guideOf(id, 'moving');
  const [, step] = alone.guide.items;
  const items = step ? [step] : [];
  await changeGuide(alone.id, { revision: alone.revision, guide: { ...alone.guide, items } });
  const first = picturesIn(filmIn((await fileOf(alone.id, 'html')).toString())).pictures[0];
  const third = picturesIn(path).pictures[0];
  const differs = (from: number, to: number) =>
    [...(first ?? [])]
      .slice(3 * WIDTH * from, 3 * WIDTH * to)
      .filter((value, i) => Math.abs(value - (third?.[3 * WIDTH * from + i] ?? 0)) > 40).length;
  expect(differs(0, 44)).toBe(0);
  expect(differs(60, 84)).toBeGreaterThan(20);
  const folder = testFolder('guide-clips');
  const { id: folderId } = await addFolder({ name: 'Clips in guides', path: folder });
  await keepGuide(guide.id, { folderId, formats: ['markdown', 'pdf', 'docx', 'epub'] });
  const beside = readdirSync(join(folder, 'Beds')).sort();
  expect(beside.map((name) => name.split('.').at(-1))).toEqual(['png', 'webp']);
  expect(readFileSync(join(folder, 'Beds.md'), 'utf8')).toContain(`Beds/${beside[1]}`);
  const moves = await sharp(join(folder, 'Beds', beside[1] ?? '')).metadata();
  // Eight of fifteen a second.
  expect(moves.pages).toBeGreaterThan(10);
  expect(moves.pages).toBeLessThan(16);
  expect(beingMade()).toEqual(before);
}, 120_000);

test('it has the longest side of the guide, and plays in a link to it', async () => {
  const { id } = await clip();
  const guide = await guideOf(id, 'moving', 100);
  const made = await linkGuide(guide.id, linkInputSchema.parse({}));
  const { body, headers } = await answerLink(made.path);
  expect(headers['Content-Security-Policy']).toContain('media-src data:');
  const page = Buffer.from(body).toString();
  expect(page).toContain("default-src 'none'; img-src data:; media-src data:;");
  expect(picturesIn(filmIn(page))).toMatchObject({ width: 100, height: 60 });
}, 60_000);

test('kept still it is the first picture that is kept, with its link where that is wanted', async () => {
  const { id } = await clip();
  const guide = await guideOf(id, 'link');
  const told = async () => (await getGuide(guide.id)).shots.find((one) => one.id === id)?.clip;
  expect(await told()).toEqual({ cover: 7, link: null });
  expect((await fileOf(guide.id, 'html')).toString()).not.toContain('Play the clip');
  const { id: job } = await wanted(id, { folderId: null, format: 'mp4' });
  const answer = await links(jsonRequest('/x', 'POST', { job }), at({ id }));
  const { address, id: link } = linkSchema.parse(await answer.json());
  expect(await told()).toEqual({ cover: 7, link: address });
  const page = (await fileOf(guide.id, 'html')).toString();
  expect(page).toContain(`Play the clip: <a href="${address}" rel="noreferrer">${address}</a>`);
  expect(page).not.toContain('<video');
  const [, still = ''] = page.match(/data:image\/png;base64,[^"]+/g) ?? [];
  const image = sharp(Buffer.from(still.split(',')[1] ?? '', 'base64')).removeAlpha();
  expect(numberOn(await image.raw().toBuffer())).toBe(7);
  await takeBack(link);
  expect((await fileOf(guide.id, 'html')).toString()).not.toContain('Play the clip');
}, 60_000);
