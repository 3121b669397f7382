import { execFile } from 'node:child_process';
import { mkdtemp, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import sharp from 'sharp';
import { guideSchema, type GuideFormat, type StoredGuide } from '@/core/contracts/guide';
import { untouched } from '@/core/document/view';
import { markSchema, type Mark } from '@/core/marks/registry';
import { guideFile } from '../guides/file';
import { addGuide, changeGuide } from '../guides/guides';
import { storeShot } from '../shots/store';
import { gradient } from './setup';

export const run = promisify(execFile);
export const SIZE = { width: 240, height: 160 };
export const ABOUT = 'A form with two buttons';

export const number = (id: string, caption: string, at: { x: number; y: number }) =>
  markSchema.parse({ id, kind: 'number', at, value: 1, colour: '#0072B2', caption });
export const cover = markSchema.parse({
  ...{ id: 'cover', kind: 'cover', x: 100, y: 60, width: 120, height: 80, colour: '#000000' },
});

export async function shot(marks: readonly Mark[] = [], data = gradient(SIZE.width, SIZE.height)) {
  const picture = await sharp(data, { raw: { ...SIZE, channels: 3 } })
    .png()
    .toBuffer();
  const document = { ...untouched(SIZE), marks: [...marks], description: ABOUT };
  const provenance = { source: 'display' as const, takenAt: '2026-11-23T14:02:11Z' };
  const { id } = await storeShot({ picture, title: 'Form', titleMade: true, document, provenance });
  return id;
}

/** Two numbers in the second picture, none in the others. */
export async function seeds(): Promise<StoredGuide> {
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

export const stepOf = ({ guide }: StoredGuide, nth: number) => {
  const step = guide.items.filter(({ kind }) => kind === 'step')[nth];
  if (step?.kind !== 'step') throw new Error('There is no such step.');
  return step;
};

/** A file of a guide on disk, for readers of other makers. */
export async function onDisk(id: string, format: GuideFormat): Promise<string> {
  const { bytes, name } = await guideFile(id, format);
  const path = join(await mkdtemp(join(tmpdir(), 'rezzik-guide-')), name);
  await writeFile(path, bytes);
  return path;
}

/** Python's own reader of XML (expat) refuses what is not well-formed. */
export const wellFormed = (paths: readonly string[]) =>
  run('python3', [
    '-c',
    'import sys, xml.dom.minidom as m\nfor p in sys.argv[1:]: m.parse(p)',
    ...paths,
  ]);
