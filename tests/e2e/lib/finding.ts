import postgres from 'postgres';
import { By, Key, type WebElement } from 'selenium-webdriver';
import { z } from 'zod';
import { packWords } from '@/server/words/rows';
import { plainPng, read, sendShot } from './app';
import { ask } from './hand';
import { app, browser } from './suite';

/** Where the first word of a shot stands; the next ones follow every 70 pixels. */
export const BOX = { x: 30, y: 20, width: 60, height: 12 };

/** Shots by the titles they were put by. */
export const ids: Record<string, string> = {};

/** A shot with words as if its picture had been read: it is named last, and so indexed anew. */
export async function put(title: string, words: string[], day: number): Promise<void> {
  const provenance = JSON.stringify({
    source: 'desk',
    takenAt: new Date(Date.UTC(2026, 2, day, 10)).toISOString(),
  });
  const id = await sendShot(await plainPng(200, 100, '#E8E4D9'), 'Unnamed', { provenance });
  const line = words.map((text, i) => ({ text, box: { ...BOX, x: BOX.x + i * 70 } }));
  const { lines, boxes } = packWords([[line]]);
  const sql = postgres(process.env.DATABASE_URL ?? '', { max: 1, onnotice: () => undefined });
  await sql`update words set lines = ${lines}, boxes = ${boxes}, revision = 1 where shot_id = ${id}`;
  await sql.end();
  await ask(`/api/shots/${id}`, 'PATCH', { title });
  ids[title] = id;
}

export const titles = () =>
  browser.driver.executeScript<string[]>(
    `return [...document.querySelectorAll('[data-shot]')].map((card) => card.querySelector('.font-bold').textContent)`,
  );
export const shows = (...wanted: string[]) =>
  app.until(`shows ${wanted.join(', ')}`, async () => String(await titles()) === String(wanted));
export const field = () => browser.driver.findElement(By.css('[aria-label="Search the Shelf"]'));
export const valueOf = async (element: WebElement) => (await element.getAttribute('value')) ?? '';
export const type = async (text: string) => {
  await app.keys('/');
  await app.chord(Key.CONTROL, 'a');
  await app.keys(text);
};
export const focused = () =>
  browser.driver.executeScript<string | null>(
    `return document.activeElement.getAttribute('data-shot') ?? document.activeElement.getAttribute('aria-label')`,
  );
export const openShelf = async (query = '') => {
  await app.go(`/shelf${query}`);
  await app.until('cards', () => app.has('[data-shot]'));
};
export const tagsOf = async (title: string) =>
  z
    .object({ tags: z.array(z.string()) })
    .parse(await (await read(`/api/shots/${ids[title]}/tags`)).json()).tags;
