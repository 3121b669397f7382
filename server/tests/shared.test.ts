import { expect, test } from '@jest/globals';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

/** What is held for the whole process is held by a name: two that use the same find each other's. */
test('no two rooms of the server hold something under one name', () => {
  const files = readdirSync('server', { recursive: true, encoding: 'utf8' });
  const names = files
    .filter((name) => name.endsWith('.ts') && !name.startsWith('tests'))
    .flatMap((name) => {
      const text = readFileSync(join('server', name), 'utf8');
      return [...text.matchAll(/\bshared(?:<[^()]*>)?\(\s*'([^']+)'/g)].map(([, held]) => held);
    });
  expect(names.length).toBeGreaterThan(20);
  expect(names.filter((name, at) => names.indexOf(name) !== at)).toEqual([]);
});
