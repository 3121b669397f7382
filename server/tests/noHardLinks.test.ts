import { afterAll, describe, expect, jest, test } from '@jest/globals';
import { mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import * as files from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** What the next rename does instead, once. */
let renaming: (() => Promise<void>) | null = null;

// Such file systems (FAT, many network shares) cannot be had here; they answer link like this.
jest.unstable_mockModule('node:fs/promises', () => ({
  ...files,
  link: () => Promise.reject(Object.assign(new Error('EPERM'), { code: 'EPERM' })),
  rename: (from: string, to: string) => {
    const once = renaming;
    renaming = null;
    return once ? once() : files.rename(from, to);
  },
}));
const { partIn, placePart, writePart, writeWhole } = await import('../keep/write');

const path = mkdtempSync(join(tmpdir(), 'rezzik-no-links-'));
afterAll(() => rmSync(path, { recursive: true }));

describe('where there are no hard links', () => {
  test('a placeholder holds the name, and nothing is overwritten', async () => {
    const target = join(path, 'a.png');
    expect(await writeWhole(target, Buffer.from('one'))).toBe(true);
    expect(await writeWhole(target, Buffer.from('two'))).toBe(false);
    expect(readFileSync(target, 'utf8')).toBe('one');
    expect(readdirSync(path)).toEqual(['a.png']);
  });

  test('twenty at once for one name: one gets it, whole', async () => {
    const target = join(path, 'race.png');
    const won = await Promise.all(
      Array.from({ length: 20 }, (_, i) => writeWhole(target, Buffer.from(`file ${i}`))),
    );
    expect(won.filter(Boolean)).toHaveLength(1);
    expect(readFileSync(target, 'utf8')).toBe(`file ${won.indexOf(true)}`);
  });

  test('while the part is on its way the placeholder names it; when that fails it is gone', async () => {
    const target = join(path, 'b.png');
    const part = partIn(path);
    await writePart(part, Buffer.from('three'));
    let held = '';
    renaming = () => {
      held = readFileSync(target, 'utf8');
      return Promise.reject(Object.assign(new Error('EIO'), { code: 'EIO' }));
    };
    await expect(placePart(part, target)).rejects.toMatchObject({ code: 'EIO' });
    expect(part.path.endsWith(held)).toBe(true);
    expect(readdirSync(path)).not.toContain('b.png');
    writeFileSync(target, 'theirs');
    expect(await placePart(part, target)).toBe(false);
    expect(readFileSync(target, 'utf8')).toBe('theirs');
  });
});
