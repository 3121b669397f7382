import { expect, test } from '@jest/globals';
import { Parser, type Node } from 'commonmark';
import { guideSchema, type GuideShot } from '../contracts/guide';
import { numberedFrom } from '../document/numberedFrom';
import { untouched } from '../document/view';
import { firstStyles, kindOf } from '../marks/registry';
import { randomFrom } from '../random/random';
import { asHtml } from './asHtml';
import { asMarkdown } from './asMarkdown';
import { numbersOf, spanOf, withNumbers } from './numbering';
import { pageOf } from './page';
import { plainWords, readWords } from './words';

const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const shot = (
  n: number,
  captions: readonly string[] = [],
  more: Partial<GuideShot> = {},
): GuideShot => ({
  ...{ id: uuid(n), state: 'there', revision: 1, name: '', description: '' },
  discs: captions.map((caption) => ({ counting: 'numbers', caption })),
  ...more,
});
const step = (n: number, more: object = {}) => ({
  kind: 'step',
  id: `s${n}`,
  shot: uuid(n),
  ...more,
});
const guide = (items: readonly object[]) => guideSchema.parse({ version: 1, items });

const spans = (items: readonly object[], shots: readonly GuideShot[]) => {
  const all = new Map(shots.map((one) => [one.id, one]));
  const { items: parsed } = guide(items);
  const numbers = numbersOf(parsed, (id) => all.get(id)?.discs);
  return parsed.map(({ id }) => {
    const own = numbers.get(id);
    return own ? spanOf(own) : null;
  });
};

test('numbers run on across the shots and close up when one is moved or taken out', () => {
  const shots = [shot(1), shot(2, ['Number', 'Button']), shot(3), shot(4, ['Slip'])];
  const heading = { kind: 'heading', id: 'h', text: 'Before' };
  expect(spans([step(1), heading, step(2), step(3), step(4)], shots)).toEqual([
    '1',
    null,
    '2–3',
    '4',
    '5',
  ]);
  expect(spans([step(2), step(4), step(1)], shots)).toEqual(['1–2', '3', '4']);
  expect(spans([step(1), step(9), step(2)], shots)).toEqual(['1', null, '2–3']);
});

test('the numbers in a picture begin where the guide counts', () => {
  const number = (id: string) => kindOf('number').create(id, [{ x: 9, y: 9 }], firstStyles.number);
  const document = { ...untouched({ width: 40, height: 40 }), marks: [number('a'), number('b')] };
  const values = numberedFrom(document, 4).marks.map((m) => m.kind === 'number' && m.value);
  expect(values).toEqual([4, 5]);
  expect(document.marks.map((m) => m.kind === 'number' && m.value)).toEqual([1, 1]);
});

test('letters and Roman numbers run on as such; a caption names its numbers', () => {
  const discs = [
    { counting: 'letters', caption: 'x' },
    { counting: 'roman', caption: '' },
  ] as const;
  const [item] = guide([step(1)]).items;
  const numbers = numbersOf([...guide([step(8)]).items, ...(item ? [item] : [])], (id) =>
    id === uuid(1) ? discs : [],
  ).get('s1');
  if (!numbers) throw new Error('The step is not counted.');
  expect(numbers.discs.map(({ written }) => written)).toEqual(['B', 'III']);
  expect(withNumbers('Press {1}, then {2}, not {3}', numbers)).toBe('Press B, then III, not {3}');
});

test('a step is called by its heading, else by its shot’s own name; what is not there is left out', () => {
  const shots = [
    shot(1, [], { name: 'Order form', description: 'A form' }),
    shot(2, [], { state: 'in the bin' }),
    shot(3, ['The number', '']),
  ];
  const page = pageOf('Seeds', guide([step(1), step(2), step(3, { heading: ' Print ' })]), shots);
  expect(page.parts.map((p) => p.kind === 'step' && [p.span, p.heading, p.alternative])).toEqual([
    ['1', 'Order form', 'A form'],
    ['2–3', 'Print', 'Print'],
  ]);
  const last = page.parts.at(-1);
  expect(last?.kind === 'step' && last.numbers).toEqual([{ written: '2', caption: 'The number' }]);
});

test('captions say words, emphasis, code, links, lists and quotations; HTML is only its letters', () => {
  expect(readWords('Press **Print *now*** or `ctrl`.\n\n1. one\n2. two')).toEqual([
    {
      kind: 'paragraph',
      of: [
        { kind: 'text', text: 'Press ' },
        {
          kind: 'strong',
          of: [
            { kind: 'text', text: 'Print ' },
            { kind: 'emphasis', of: [{ kind: 'text', text: 'now' }] },
          ],
        },
        { kind: 'text', text: ' or ' },
        { kind: 'code', text: 'ctrl' },
        { kind: 'text', text: '.' },
      ],
    },
    {
      kind: 'list',
      start: 1,
      items: ['one', 'two'].map((text) => [{ kind: 'paragraph', of: [{ kind: 'text', text }] }]),
    },
  ]);
  expect(plainWords(readWords('<script>alert(1)</script>'))).toBe('<script>alert(1)</script>');
  expect(
    readWords('[a](javascript:alert(1)) [b](https://x.test) ![c](https://y.test/p.png)'),
  ).toEqual([
    {
      kind: 'paragraph',
      of: [
        { kind: 'text', text: 'a ' },
        { kind: 'link', to: 'https://x.test', of: [{ kind: 'text', text: 'b' }] },
        { kind: 'text', text: ' c' },
      ],
    },
  ]);
});

test('what lies deeper than anybody reads comes up, and nothing of it is lost', () => {
  const deep = `${'> '.repeat(300)}at the bottom`;
  expect(plainWords(readWords(deep))).toBe('at the bottom');
  expect(plainWords(readWords(`${'- '.repeat(200)}here`))).toBe('here');
  expect(plainWords(readWords(`${'*a _'.repeat(40)}x${'_*'.repeat(40)}`))).toContain('x');
});

/** Texts full of what means something in Markdown and HTML. */
function texts(count: number): string[] {
  const next = randomFrom(19);
  const signs = [
    ...'ab 1.)(#*_`~![]<>&|\\+-=:"\'{}$^éß漢',
    '  ',
    '&amp;',
    '<b>',
    '](',
    '```',
    'http://a.b',
  ];
  return Array.from({ length: count }, () =>
    Array.from(
      { length: 1 + Math.floor(next() * 14) },
      () => signs[Math.floor(next() * signs.length)],
    )
      .join('')
      .trim(),
  ).filter((text) => text !== '');
}

const lettersOf = (node: Node): string => {
  let letters = '';
  const walker = node.walker();
  for (let event = walker.next(); event; event = walker.next()) letters += event.node.literal ?? '';
  return letters;
};

test('a CommonMark reference parser reads the same headings, captions and pictures (CommonMark 0.31)', () => {
  const parser = new Parser();
  for (const [i, text] of texts(2000).entries()) {
    const shots = [shot(1, [], { description: text })];
    const items = [{ kind: 'heading', id: 'h', text }, step(1, { heading: text })];
    const written = asMarkdown(pageOf(text, guide(items), shots), () => 'a%20b/01.png');
    const root = parser.parse(written);
    const nodes: Node[] = [];
    for (let node = root.firstChild; node; node = node.next) nodes.push(node);
    const seen = nodes.map((node) => [node.type, lettersOf(node).replace(/\s+/g, ' ')]);
    const plain = text.replace(/\s+/g, ' ');
    expect([i, seen]).toEqual([
      i,
      [
        ['heading', plain],
        ['heading', plain],
        ['heading', `1 ${plain}`],
        ['paragraph', plain],
      ],
    ]);
    const image = nodes[3]?.firstChild;
    expect([image?.type, image?.destination]).toEqual(['image', 'a%20b/01.png']);
  }
});

test('captions come out of Markdown as they went in', () => {
  const parser = new Parser();
  for (const text of texts(600)) {
    const blocks = readWords(text);
    const page = pageOf('T', guide([step(1, { caption: text, heading: 'H' })]), [shot(1)]);
    const written = asMarkdown(page, () => 'p.png');
    const again = readWords(written.split('![')[1]?.split('\n\n').slice(1).join('\n\n') ?? '');
    expect(plainWords(again).replace(/\s+/g, ' ').trim()).toBe(
      plainWords(blocks).replace(/\s+/g, ' ').trim(),
    );
    expect(parser.parse(written).firstChild?.type).toBe('heading');
  }
});

test('a page holds its pictures, names them for whoever does not see them, and runs nothing', async () => {
  const shots = [shot(1, ['A "box"'], { description: 'Rows & <beds>' })];
  const items = [step(1, { heading: '<i>', caption: 'See <img src=x onerror=y>' })];
  let html = '';
  const picture = () =>
    Promise.resolve({ address: 'data:image/png;base64,AA==', width: 3, height: 2 });
  for await (const part of asHtml(pageOf('A & B', guide(items), shots), picture)) html += part;
  expect(html).toContain('<title>A &amp; B</title>');
  expect(html).toContain(
    '<img src="data:image/png;base64,AA==" width="3" height="2" alt="Rows &amp; &lt;beds&gt;" />',
  );
  expect(html).toContain('<h2 id="at-s1">1 &lt;i&gt;</h2>');
  expect(html).toContain('See &lt;img src=x onerror=y&gt;');
  expect(html).toContain('<li><b>1</b> A &quot;box&quot;</li>');
  expect(html).toContain("default-src 'none'; img-src data:");
});

test('two parts of one id, a caption too long and a thousand and one steps are refused', () => {
  const many = Array.from({ length: 1001 }, (_, i) => step(i));
  for (const items of [[step(1), step(1)], [step(1, { caption: 'x'.repeat(5001) })], many])
    expect(guideSchema.safeParse({ version: 1, items }).success).toBe(false);
  expect(guideSchema.safeParse({ version: 2, items: [] }).success).toBe(false);
});
