import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { pipeline } from 'node:stream/promises';
import { Readable } from 'node:stream';
import postgres from 'postgres';
import { z } from 'zod';
import { randomFrom } from '@/core/random/random';
import { indexOf } from '@/core/search/indexed';
import { packWords } from '@/server/words/rows';
import { App, plainPng, sendShot } from '../tests/e2e/lib/app';
import { appUrl, openBrowser } from '../tests/e2e/lib/browser';
import { median, ms, report, time } from './measure';

// Finding shots among a hundred thousand, each with a hundred and fifty words: made up, put straight
// into the tables, asked for over HTTP.

const SHOTS = 100_000;
const WORDS = 150;
const VOCABULARY = 20_000;
const DAY = 86_400_000;
const sql = postgres(process.env.DATABASE_URL ?? '', { max: 2, onnotice: () => undefined });
afterAll(() => sql.end());

const next = randomFrom(14);
const SYLLABLES =
  'ba be bi bo da de di do fa fe ga ge ka ke la le lo ma me mo na ne no pa pe ra re ro sa se so ta te ti to'.split(
    ' ',
  );
const vocabulary = Array.from({ length: VOCABULARY }, (_, i) => {
  let word = '';
  for (let n = i + 40; n > 0; n = Math.floor(n / SYLLABLES.length))
    word += SYLLABLES[n % SYLLABLES.length] ?? '';
  return word;
});
/** Few words are common and many are rare, as in any language (G. K. Zipf). */
const someWord = (): string => {
  const rank = Math.floor(Math.exp(next() * Math.log(VOCABULARY)));
  return vocabulary[Math.min(rank, VOCABULARY) - 1] ?? '';
};
const code = (i: number): string => `SX-${10 + (i % 90)}-${String(i).padStart(6, '0')}-KA`;

interface Made {
  id: string;
  at: Date;
  title: string;
  line: string[];
  tag: string;
}

function make(i: number): Made {
  const line = Array.from({ length: WORDS - 1 }, someWord);
  line.push(code(i));
  return {
    id: randomUUID(),
    at: new Date(Date.now() - (i * 1500 * DAY) / SHOTS),
    title: `${line[0] ?? ''} ${line[1] ?? ''} ${i}`,
    line,
    tag: next() < 0.05 ? 'Winter' : '',
  };
}

/** Rows as COPY reads them. */
async function copy(into: string, rows: () => Generator<string>): Promise<void> {
  await pipeline(Readable.from(rows()), await sql`copy ${sql.unsafe(into)} from stdin`.writable());
}

const made = Array.from({ length: SHOTS }, (_, i) => make(i));
const hex = (bytes: Buffer): string => `\\\\x${bytes.toString('hex')}`;

async function fill(): Promise<void> {
  const first = await sendShot(await plainPng(64, 48, '#E8E4D9'), 'First');
  const [shot] = await sql<{ frame_id: string; document: object }[]>`
    select frame_id, document from shots where id = ${first}`;
  const document = JSON.stringify(shot?.document);
  const from = JSON.stringify({ source: 'desk', takenAt: '2026-03-03T10:00:00Z' });
  await sql`alter table search disable trigger user`;
  await sql`drop index search_tokens, search_inside`;
  await copy('shots (id, frame_id, title, document, provenance, taken_at)', function* () {
    for (const { id, at, title } of made)
      yield `${id}\t${shot?.frame_id}\t${title}\t${document}\t${from}\t${at.toISOString()}\n`;
  });
  await copy('search (shot_id, taken_at, tokens, sequence, width, height)', function* () {
    for (const { id, at, title, line, tag } of made) {
      const { tokens, sequence } = indexOf({ title, tag }, line.join(' '), {
        kinds: [],
        source: 'desk',
      });
      const vector = tokens.map((token) => `'${token}'`).join(' ');
      yield `${id}\t${at.toISOString()}\t${vector}\t${sequence.replaceAll('\n', '\\n')}\t64\t48\n`;
    }
  });
  await copy('words (shot_id, revision, lines, boxes)', function* () {
    for (const { id, line } of made) {
      const words = line.map((text, i) => ({ text, box: { x: i, y: i, width: 30, height: 9 } }));
      const { lines, boxes } = packWords([[words]]);
      yield `${id}\t1\t${lines}\t${hex(boxes)}\n`;
    }
  });
  await sql`create index search_tokens on search using gin (tokens)`;
  await sql`create index search_inside on search using gin (sequence gin_trgm_ops)`;
  await sql`insert into known_words select word, ndoc from ts_stat('select tokens from search')
    where length(word) between 4 and 40 and position(':' in word) = 0 on conflict do nothing`;
  await sql`alter table search enable trigger user`;
  const [tag] = await sql<{ id: string }[]>`insert into tags (id, name, folded, colour)
    values (gen_random_uuid(), 'Winter', 'winter', '#0072B2') returning id`;
  await copy('shot_tags (shot_id, tag_id)', function* () {
    for (const one of made) if (one.tag) yield `${one.id}\t${tag?.id}\n`;
  });
  await sql`vacuum analyze`;
}

beforeAll(fill, 900_000);

const answerSchema = z.object({ shots: z.array(z.unknown()) });

async function ask(path: string): Promise<unknown> {
  const answer = await fetch(appUrl() + path);
  expect(answer.status).toBe(200);
  return answer.json();
}

const pick = (from: number, to: number): string =>
  vocabulary[from + Math.floor(next() * (to - from))] ?? '';
const kinds: [string, () => string][] = [
  ['a code, one of all', () => `${code(Math.floor(next() * SHOTS))} `],
  ['a part of a code', () => String(Math.floor(next() * SHOTS)).padStart(6, '0')],
  ['a rare word', () => `${pick(5_000, 19_000)} `],
  ['a common word', () => `${pick(0, 10)} `],
  ['a common word while it is typed', () => pick(0, 200).slice(0, 3)],
  ['two common words', () => `${pick(0, 10)} ${pick(0, 10)} `],
  ['a common and a rare word', () => `${pick(0, 10)} ${pick(2_000, 9_000)} `],
  ['a common one without another', () => `${pick(0, 10)} -${pick(0, 10)} `],
  ['a phrase', () => `"${made[Math.floor(next() * SHOTS)]?.line.slice(4, 7).join(' ')}"`],
  ['with a tag, of one year', () => `${pick(0, 30)} tag:winter between:2024-01-01..2024-12-31`],
  ['in the title', () => `title:${pick(0, 300)}`],
  ['with no arrow, not kept', () => `${pick(0, 30)} -with:arrow kept:none`],
  ['nothing, with help', () => `${pick(3_000, 9_000)}x ${pick(0, 10)} `],
];
const ROUNDS = 25;
const q = (query: string): string => encodeURIComponent(query);

test('first pages, counts, pages by fitness', async () => {
  for (const [name, query] of kinds) {
    const took: Record<string, number[]> = { day: [], fitness: [], count: [] };
    for (let i = 0; i < ROUNDS; i += 1) {
      const asked = q(query());
      for (const order of ['day', 'fitness']) {
        took[order]?.push(await time(() => ask(`/api/shots?limit=60&order=${order}&q=${asked}`)));
      }
      took.count?.push(await time(() => ask(`/api/shots/count?q=${asked}`)));
    }
    const said = Object.entries(took).map(
      ([what, all]) => `${what} ${ms(median(all))} (${ms(Math.max(...all))})`,
    );
    report(`Search: ${name}`, said.join(', '), '≤ 50, count ≤ 150 ms');
  }
}, 900_000);

test('from a letter typed to other cards in the page', async () => {
  const browser = await openBrowser();
  try {
    const app = new App(browser.driver);
    await app.go('/shelf');
    await app.until('cards', () => app.has('[data-shot]'));
    const words = Array.from({ length: ROUNDS }, (_, i) =>
      i % 2 ? pick(0, 200) : pick(2_000, 9_000),
    );
    const took = await browser.driver.executeAsyncScript<number[]>(TYPING, words);
    expect(took.every((one) => one > 0)).toBe(true);
    const most = ms(Math.max(...took));
    report('Typing to cards among 100 000', `${ms(median(took))} (${most})`, '≤ 150 ms');
  } finally {
    await browser.close();
  }
}, 300_000);

/** Puts words into the field as typing does, and waits for the frame in which other cards are seen. */
const TYPING = `
  const [words, done] = arguments;
  const field = document.querySelector('[aria-label="Search the Shelf"]');
  const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set;
  const cards = () => [...document.querySelectorAll('[data-shot]')].map((c) => c.dataset.shot).join();
  const one = (text) => new Promise((resolve) => {
    const before = cards();
    const begun = performance.now();
    set.call(field, text);
    field.dispatchEvent(new Event('input', { bubbles: true }));
    const look = () => {
      if (cards() !== before) requestAnimationFrame(() => resolve(performance.now() - begun));
      else if (performance.now() - begun > 5000) resolve(-1);
      else requestAnimationFrame(look);
    };
    requestAnimationFrame(look);
  });
  (async () => {
    const all = [];
    for (const text of words) {
      all.push(await one(text));
      await new Promise((rest) => setTimeout(rest, 500));
    }
    done(all);
  })();`;

test('a page of the Shelf without a search, and storing a shot', async () => {
  const shelf: number[] = [];
  for (let i = 0; i < ROUNDS; i += 1) {
    shelf.push(await time(async () => answerSchema.parse(await ask('/api/shots?limit=100'))));
  }
  report('Shelf page among 100 000', ms(median(shelf)), '≤ 20 ms');
  const png = await plainPng(64, 48, '#E8E4D9');
  const stored: number[] = [];
  const bare: number[] = [];
  for (let i = 0; i < ROUNDS; i += 1) {
    stored.push(await time(() => sendShot(png, `Stored ${i}`)));
  }
  for (let i = 0; i < ROUNDS; i += 1) bare.push(await time(() => ask('/api/shots?limit=1')));
  report('Store a small shot among 100 000', ms(median(stored)), `an answer ${ms(median(bare))}`);
}, 300_000);
