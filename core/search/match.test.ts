import { expect, test } from '@jest/globals';
import { readQuery } from './grammar';
import { indexOf } from './indexed';
import { reasonOf } from './match';

const today = { year: 2026, month: 11, day: 27 };
const ask = (text: string) => readQuery(text, today);
/** Words of ten pixels a letter, beside each other on one line or below. */
function wordsOf(...lines: string[]) {
  return lines.flatMap((line, row) => {
    let x = 0;
    return line.split(' ').map((text) => {
      const box = { x, y: row * 20, width: text.length * 10, height: 12 };
      x += box.width + 10;
      return { text, box };
    });
  });
}

test('a phrase is one outline a line, and only where it stands', () => {
  const words = wordsOf('Sensor 14 is not responding (E-207).', 'It is not', 'responding now, not');
  const { places, hits } = reasonOf(ask('"not responding"'), {}, words);
  expect(places).toEqual(['picture']);
  expect(hits).toEqual([
    { x: 130, y: 0, width: 140, height: 12 },
    { x: 60, y: 20, width: 30, height: 12 },
    { x: 0, y: 40, width: 100, height: 12 },
  ]);
});

test('words of a clip’s later pictures: the first moment at which they stand, unless the first picture has them', () => {
  const later = [
    { at: 2.5, lines: 'Frost warning\nSensor 14' },
    { at: 7, lines: 'Frost over' },
  ];
  const first = wordsOf('Sensor 9');
  const frost = reasonOf(ask('frost'), {}, first, false, later);
  expect(frost).toEqual({ places: ['picture'], hits: [], moment: 2.5 });
  expect(reasonOf(ask('"frost over"'), {}, first, false, later).moment).toBe(7);
  const both = reasonOf(ask('sensor '), {}, first, false, later);
  expect(both).not.toHaveProperty('moment');
  expect(both.hits).toHaveLength(1);
  expect(reasonOf(ask('roses'), {}, first, false, later).places).toEqual([]);
});

test('why: title, tag, window, picture, in this order', () => {
  const texts = { title: 'Sensor 14', tag: 'Faults\nSensors', window: 'Readings' };
  const reason = reasonOf(ask('sensor read'), texts, wordsOf('Sensor 14'));
  // The last word may go on, the first is whole.
  expect(reason.places).toEqual(['title', 'window', 'picture']);
  expect(reasonOf(ask('title:sensor'), texts, wordsOf('sensor')).hits).toEqual([]);
  expect(reasonOf(ask('-sensor'), texts, wordsOf('sensor'))).toEqual({ places: [], hits: [] });
  expect(reasonOf(ask('on:today'), texts, wordsOf('today'))).toEqual({ places: [], hits: [] });
});

test('slips of recognition are forgiven, other words are not', () => {
  expect(reasonOf(ask('E-207 '), {}, wordsOf('Code E-2O7'))).toMatchObject({
    places: ['picture'],
    hits: [{ x: 50 }],
  });
  expect(reasonOf(ask('E-207 '), {}, wordsOf('Code E-217')).places).toEqual([]);
});

test('within words only where that was asked', () => {
  const words = wordsOf('Greenhouse');
  expect(reasonOf(ask('house'), {}, words).places).toEqual([]);
  expect(reasonOf(ask('house'), {}, words, true).places).toEqual(['picture']);
});

test('what a shot is found by: all tokens once, those of fields also by the field', () => {
  const { tokens, sequence } = indexOf(
    { title: 'Seed order', window: 'Seed exchange' },
    'Order received\nSX-48',
    { kinds: ['arrow', 'paintOut', 'hidden'], source: 'desk' },
  );
  expect(new Set(tokens).size).toBe(tokens.length);
  expect(tokens).toEqual(
    expect.arrayContaining([
      ...['seed', 'order', 't:seed', 't:order', 'w:seed', 'w:exchange', 'received', 'sx', '48'],
      ...['k:arrow', 'k:paintout', 'k:hidden', 's:desk'],
    ]),
  );
  // A phrase never goes over from one place to another.
  expect(sequence).toContain(' seed order \n');
  expect(sequence).toContain(' order received sx 48 ');
  expect(sequence).not.toContain('order seed');
});

test('a picture full of words is indexed up to a bound', () => {
  const many = Array.from({ length: 20_000 }, (_, i) => `word${i}`).join(' ');
  const { tokens, sequence } = indexOf({ title: 'x' }, many, { kinds: [], source: 'api' });
  expect(tokens.length).toBeLessThanOrEqual(5_003);
  expect(sequence.length).toBeLessThanOrEqual(100_000);
});
