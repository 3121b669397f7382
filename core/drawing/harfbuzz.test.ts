import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { expect, test } from '@jest/globals';
import { allFontFiles, fontsVersion } from './harfbuzz';

test('the version of the fonts is that of their files: browsers hold on to them for a year', () => {
  const hash = createHash('sha256');
  for (const name of [...allFontFiles].sort())
    hash.update(name).update(readFileSync(`public/fonts/${name}`));
  expect(fontsVersion).toBe(hash.digest('hex').slice(0, 8));
});
