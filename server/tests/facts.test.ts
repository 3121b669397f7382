import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { z } from 'zod';
import { formatNames, type FactsRule, type FormatName } from '@/core/contracts/format';
import { untouched } from '@/core/document/view';
import { markSchema } from '@/core/marks/registry';
import { encodeShot, type EncodeWish } from '../keep/encode';
import { formats } from '../formats';
import { storeShot } from '../shots/store';
import { getPaintable } from '../shots/rows';
import { begin, finish, gradientPng } from './setup';

// What stands in files beside their picture, by the rule of a folder, read back by other makers'
// tools: exiftool, pngcheck, webpinfo, tiffinfo, qpdf, poppler, ImageMagick (docs/files.md).

const title = 'Beds <7> & "north"';
const description = 'Größe „A“ & <b>, 种子 – дом';
const size = { width: 240, height: 160 };
const origin = { windowTitle: 'Secret garden plan', address: 'https://inside.fernhollow.example/' };
const DISPLAY = 'Left of the glasshouse';

let work: string;
let shot: string;
beforeAll(async () => {
  await begin();
  work = mkdtempSync(join(tmpdir(), 'rezzik-facts-'));
  const text = { id: 't', kind: 'text', x: 20, y: 30, width: 200, text: 'Frostschaden у двери' };
  const marks = [
    markSchema.parse({ ...text, colour: '#1C2B2A', textSize: 14, bold: false, plate: null }),
  ];
  ({ id: shot } = await storeShot({
    picture: await gradientPng(size.width, size.height),
    title,
    document: { ...untouched(size), description, marks },
    provenance: { source: 'display', takenAt: '2026-11-23T14:02:11Z', display: DISPLAY, ...origin },
  }));
});
afterAll(async () => {
  rmSync(work, { recursive: true, force: true });
  await finish();
});

async function written(format: FormatName, facts: FactsRule, more: Partial<EncodeWish> = {}) {
  const { bytes } = await encodeShot(await getPaintable(shot), { format, facts, ...more });
  const path = join(work, `a.${formats[format].extension}`);
  writeFileSync(path, bytes);
  return { bytes: Buffer.from(bytes), path };
}

const tool = (program: string, ...args: string[]): string =>
  execFileSync(program, args, { encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] });

/** All that exiftool reads, by group and name. */
const tagsOf = (path: string): Record<string, unknown> =>
  z
    .tuple([z.record(z.string(), z.unknown())])
    .parse(JSON.parse(tool('exiftool', '-j', '-G1', '-charset', 'utf8', path)))[0];

const everything = (tags: Record<string, unknown>, bytes: Buffer): string =>
  JSON.stringify(Object.entries(tags).filter(([name]) => !/^(System|SourceFile)/.test(name))) +
  bytes.toString('utf8') +
  bytes.toString('latin1');

/** Every format but BMP, which has no place for words. */
const telling = formatNames.filter((name) => formats[name].facts);

describe.each(telling)('%s', (name) => {
  test('with words: title, description, time and software, and nothing of where from', async () => {
    const { path, bytes } = await written(name, { words: true, origin: false });
    const tags = tagsOf(path);
    const warnings = Object.entries(tags).filter(([tag]) => /Warning|Error/.test(tag));
    expect(warnings).toEqual([]);
    const values = JSON.stringify(Object.values(tags))
      .replaceAll('&amp;', '&')
      .replaceAll('&lt;', '<')
      .replaceAll('&gt;', '>');
    for (const words of [title, description])
      expect(values).toContain(JSON.stringify(words).slice(1, -1));
    expect(values).toMatch(/2026[:-]11[:-]23[T ]14:02:11/);
    expect(everything(tags, bytes)).toContain('Rezzik');
    for (const secret of [...Object.values(origin), DISPLAY])
      expect(everything(tags, bytes)).not.toContain(secret);
  });

  test('with where from: source, window and address, never the display', async () => {
    const { path, bytes } = await written(name, { words: false, origin: true });
    const tags = tagsOf(path);
    const all = everything(tags, bytes);
    for (const told of Object.values(origin)) expect(all).toContain(told);
    for (const other of ['Beds', 'Größe', 'Rezzik', '2026:11:23', '2026-11-23', DISPLAY])
      expect([other, all.includes(other)]).toEqual([other, false]);
  });

  test('without either: nothing', async () => {
    const { path, bytes } = await written(name, { words: false, origin: false });
    const all = everything(tagsOf(path), bytes);
    const secrets = ['Beds', 'Größe', 'Rezzik', '2026:11:23', '2026-11-23', DISPLAY];
    for (const other of [...secrets, ...Object.values(origin), 'This computer'])
      expect([other, all.includes(other)]).toEqual([other, false]);
  });
});

describe('by the standards', () => {
  const words = { words: true, origin: false };

  // Source: CIPA DC-008 (Exif 2.32); ImageDescription is ASCII, other letters go into UserComment.
  test.each(['jpeg', 'webp', 'tiff'] as const)('%s: Exif', async (name) => {
    const { path } = await written(name, words);
    expect(tagsOf(path)).toMatchObject({
      'ExifIFD:DateTimeOriginal': '2026:11:23 14:02:11',
      'ExifIFD:OffsetTimeOriginal': '+00:00',
      'ExifIFD:OffsetTime': '+00:00',
      'ExifIFD:UserComment': description,
      'ExifIFD:ColorSpace': 'sRGB',
      'ExifIFD:ExifImageWidth': 240,
      'IFD0:Software': 'Rezzik',
      'IFD0:ModifyDate': '2026:11:23 14:02:11',
      'XMP-dc:Title': title,
      'XMP-dc:Description': description,
    });
  });

  test('JPEG: its density in JFIF and in Exif', async () => {
    const { path } = await written('jpeg', words, { density: 150 });
    expect(tagsOf(path)).toMatchObject({ 'JFIF:XResolution': 150, 'IFD0:XResolution': 150 });
  });

  test('PNG: its chunks, sRGB among them', async () => {
    const { path } = await written('png', words);
    const told = tool('pngcheck', '-v', path);
    expect(told).toContain('chunk sRGB');
    expect(told).toMatch(/^No errors detected/m);
    expect(tagsOf(path)['PNG:Title']).toBe(title);
  });

  test('WebP: nothing that webpinfo or ImageMagick complain of, with transparency and without', async () => {
    const { path } = await written('webp', words);
    expect(tool('webpinfo', path)).toContain('No error detected.');
    expect(tool('identify-im6.q16', path)).toContain('240x160');
    const padded = await written('webp', words, {
      width: 300,
      height: 300,
      fit: 'pad',
      options: { lossless: true },
    });
    expect(tool('webpinfo', padded.path)).toContain('No error detected.');
  });

  test('TIFF: read by libtiff without a complaint', async () => {
    const { path } = await written('tiff', words);
    const told = execFileSync('sh', ['-c', 'tiffinfo "$0" 2>&1', path], { encoding: 'utf8' });
    expect(told).toContain('Software: Rezzik');
    expect(told).not.toMatch(/warning|error/i);
  });
});

describe('PDF', () => {
  const rule = { words: true, origin: false };

  test('is sound for qpdf and poppler, and its XMP is XML', async () => {
    const { path } = await written('pdf', rule);
    expect(tool('qpdf', '--check', path)).toContain('No syntax or stream encoding errors found');
    const info = execFileSync('sh', ['-c', 'pdfinfo -meta "$0" 2>&1', path], { encoding: 'utf8' });
    expect(info).not.toMatch(/error|warning/i);
    const script =
      'import sys, xml.dom.minidom as d; print(d.parseString(sys.stdin.buffer.read()).documentElement.tagName)';
    const read = execFileSync('python3', ['-c', script], { input: info, encoding: 'utf8' });
    expect(read.trim()).toBe('x:xmpmeta');
  });

  test('has a document with a figure and a paragraph in its structure', async () => {
    const { path } = await written('pdf', rule);
    const lines = tool('pdfinfo', '-struct', path)
      .split('\n')
      .map((line) => line.trimEnd());
    expect(lines.slice(0, 3).map((line) => line.trim().split(' ')[0])).toEqual([
      'Document',
      'Figure',
      'P',
    ]);
  });

  test('keeps every script that there is a font for, and the words of marks', async () => {
    const { path } = await written('pdf', rule);
    const text = tool('pdftotext', path, '-');
    expect(text).toContain('Größe „A“');
    expect(text).toContain('дом');
    expect(text.replace(/\s+/g, ' ')).toContain('Frostschaden у двери');
    const without = await written('pdf', rule, { options: { below: false } });
    expect(tool('pdftotext', without.path, '-')).not.toContain('Größe');
    expect(tagsOf(without.path)['XMP-dc:Description']).toBe(description);
  });
});
