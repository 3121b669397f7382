import { expect, test } from '@jest/globals';
import { privateKinds } from '@/core/recognition/kinds';
import { readRecorded } from './recorded';
import { scoresOf } from './score';

// Sixteen screens kept apart, eight real pages and eight drawn, as tesseract.js 7 read them; what
// is on them is told by the pages themselves (getClientRects) and by the painter.
test('what is private is found on screens kept apart, and little else', () => {
  const screens = readRecorded();
  expect(screens).toHaveLength(16);
  const scores = scoresOf(screens);
  for (const kind of Object.keys(privateKinds)) {
    const { known, found, offered, right } = scores[kind] ?? {
      ...{ known: 0, found: 0, offered: 0, right: 0 },
    };
    expect([kind, known >= 4]).toEqual([kind, true]);
    expect([kind, found / known >= (kind === 'key' ? 0.8 : 0.9)]).toEqual([kind, true]);
    expect([kind, right / offered >= 0.9]).toEqual([kind, true]);
  }
});
