// The order of the test files: those that need no app while it is still being built, the longest
// of them and of the rest first, so that both workers end at about the same time.

import { statSync } from 'node:fs';
import Sequencer from '@jest/test-sequencer';

const withoutApp = ['unit', 'server'];

/** Files that take long for their size. */
const long = [
  'hide.test.ts',
  'turn.test.ts',
  'kill.test.ts',
  'load.test.ts',
  'paint.test.ts',
  'draw.test.ts',
  'access.test.ts',
  'take.test.ts',
  'places.test.ts',
  'extremes.test.ts',
  'mark.test.ts',
  'kinds.test.ts',
];

const weight = ({ path }) => {
  const place = long.findIndex((name) => path.endsWith(name));
  return place < 0 ? statSync(path).size : 1e9 - place;
};

export default class extends Sequencer {
  sort(tests) {
    const name = (test) => test.context.config.displayName?.name ?? '';
    const late = (test) => (withoutApp.includes(name(test)) ? 0 : 1);
    return [...tests].sort((a, b) => late(a) - late(b) || weight(b) - weight(a));
  }
}
