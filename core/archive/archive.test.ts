import { describe, expect, test } from '@jest/globals';
import { fromRandomAccessReaderPromise, RandomAccessReader, type Entry } from 'yauzl';
import { Readable } from 'node:stream';
import { entryKind, frameEntry, guideEntry, LISTS, originalEntry, shotEntry } from './entries';
import { manifestLine, readManifest } from './manifest';
import { idOf, relationOf } from './relation';
import { directoryEntry, zipEnd, zipTime } from './zip';
import { change, startHistory, undo } from '../document/history';
import { untouched } from '../document/view';

const id = '0b5c0f0e-7a1d-4c36-9d0f-3a4b5c6d7e8f';

describe('entries', () => {
  test('each name tells its kind; what is none is none', () => {
    expect(entryKind(frameEntry(id))).toBe('frame');
    expect(entryKind(originalEntry(id))).toBe('original');
    expect(entryKind(shotEntry(id))).toBe('shot');
    expect(entryKind(guideEntry(id))).toBe('guide');
    for (const name of Object.values(LISTS)) expect(entryKind(name)).toBe('list');
    const odd = ['shots/../a.json', `shots/${id}.JSON`, `shots/${id}.json/x`, `/shots/${id}.json`];
    for (const name of [...odd, '', 'a.txt', `frames/${id.toUpperCase()}.png`]) {
      expect(entryKind(name)).toBeNull();
    }
  });
});

describe('the manifest', () => {
  const line = { name: shotEntry(id), bytes: 12, sha256: 'a'.repeat(64) };

  test('is read as it was written', () => {
    expect(readManifest(manifestLine(line))).toEqual({ lines: [line], odd: [] });
  });

  test('lines that say nothing sound are told by their number, and the others hold', () => {
    const text = [
      'no json',
      JSON.stringify({ ...line, bytes: -1 }),
      JSON.stringify({ ...line, name: 'notes.txt' }),
      manifestLine(line).trim(),
      '',
      JSON.stringify({ ...line, more: 1 }),
      JSON.stringify({ ...line, bytes: 13 }),
    ].join('\n');
    const { lines, odd } = readManifest(text);
    expect(lines).toEqual([line]);
    expect(odd.map((one) => one.line)).toEqual([1, 2, 3, 6, 7]);
    expect(odd.at(-1)?.why).toMatch(/twice/);
  });
});

describe('how a shot that is here stands to one that comes in', () => {
  const first = untouched({ width: 10, height: 10 });
  const described = (description: string) => (draft: { description?: string | undefined }) =>
    void (draft.description = description);
  const one = change(startHistory(first), 'Describe', described('one'));
  const two = change(one, 'Describe', described('two'));

  test('the same, with steps undone or not', () => {
    expect(relationOf(two, two.document)).toBe('same');
    expect(relationOf(undo(two), one.document)).toBe('same');
  });

  test('further on, where undo leads back to it', () => {
    expect(relationOf(two, one.document)).toBe('further');
    expect(relationOf(two, first)).toBe('further');
  });

  test('another one, where undo leads nowhere near it, or forwards', () => {
    expect(relationOf(one, two.document)).toBe('other');
    expect(relationOf(undo(two), two.document)).toBe('other');
    expect(relationOf(startHistory(two.document), one.document)).toBe('other');
    const broken = {
      ...two,
      steps: two.steps.map((step) => ({
        ...step,
        inverse: [{ op: 'remove' as const, path: ['no', 'where'] }],
      })),
    };
    expect(relationOf(broken, first)).toBe('other');
  });

  test('its own identity is one of RFC 9562, always the same of the same', () => {
    const hash = '0123456789abcdef0123456789abcdef0123456789abcdef0123456789abcdef';
    expect(idOf(hash)).toBe('01234567-89ab-8def-8123-456789abcdef');
    expect(idOf('f'.repeat(64))).toMatch(
      /^[0-9a-f]{8}-[0-9a-f]{4}-8[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/,
    );
  });
});

/** A file of terabytes of which only its end is there. */
class Ending extends RandomAccessReader {
  constructor(
    private readonly begins: number,
    private readonly bytes: Uint8Array,
  ) {
    super();
  }

  override _readStreamForRange(start: number, end: number): Readable {
    const all = Buffer.alloc(end - start);
    const from = Math.max(start, this.begins);
    if (end > from)
      all.set(this.bytes.subarray(from - this.begins, end - this.begins), from - start);
    return Readable.from([all]);
  }
}

describe('a zip, read by another maker’s reader', () => {
  const at = zipTime(2026, 11, 28, 13, 45, 58);
  const file = (name: string) => ({
    ...{ name, crc: 0x12345678, packed: 3, unpacked: 3, deflated: false },
  });

  /** Files whose local headers lie at these places. */
  async function opened(offsets: readonly number[], begins: number) {
    const directory = Buffer.concat(
      offsets.map((offset, i) => directoryEntry(file(`ä${i}`), at, offset)),
    );
    const end = zipEnd(offsets.length, begins, directory.length);
    const size = begins + directory.length + end.length;
    const reader = new Ending(begins, Buffer.concat([directory, end]));
    return fromRandomAccessReaderPromise(reader, size, { lazyEntries: true });
  }
  async function read(offsets: readonly number[], begins: number) {
    const zip = await opened(offsets, begins);
    const found: Entry[] = [];
    for await (const entry of zip.eachEntry()) found.push(entry);
    return found;
  }

  test('names, sums, sizes, times and places', async () => {
    const [first, second] = await read([0, 400], 1_000);
    expect(first).toMatchObject({
      ...{ fileName: 'ä0', crc32: 0x12345678, compressedSize: 3, uncompressedSize: 3 },
      ...{ compressionMethod: 0, relativeOffsetOfLocalHeader: 0 },
    });
    expect(first?.getLastModDate({ timezone: 'UTC' })).toEqual(new Date('2026-11-28T13:45:58Z'));
    expect(second).toMatchObject({ fileName: 'ä1', relativeOffsetOfLocalHeader: 400 });
  });

  test.each([
    ['a place at the edge of 4 GB', [0, 0xfffffffe, 0xffffffff], 0x1_0000_1000],
    ['places beyond 4 GB', [0, 5_000_000_000, 7_777_777_777_777], 8_000_000_000_000],
  ])('%s', async (_, offsets, begins) => {
    const found = await read(offsets, begins);
    expect(found.map((entry) => entry.relativeOffsetOfLocalHeader)).toEqual(offsets);
  });

  test('more files than two bytes count', async () => {
    const many = Array.from({ length: 65_536 }, () => 0);
    expect((await opened(many, 100)).entryCount).toBe(65_536);
  });
});
