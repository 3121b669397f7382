import { readFileSync } from 'node:fs';
import { By, until, type WebElement } from 'selenium-webdriver';
import { firstWay, type Way } from '@/core/contracts/way';
import type { Point } from '@/core/geometry/point';
import { WAIT, type App } from './app';
import { appUrl } from './browser';

/** What docs/actions.md promises, by the job's name. */
export const promised = new Map(
  [...readFileSync('docs/actions.md', 'utf8').matchAll(/^\| ([^|]+?) \| (\d+) \|/gm)].map(
    ([, job = '', count]) => [job, Number(count)] as const,
  ),
);

/** Does what a person does, and counts it. */
export class Hand {
  actions = 0;
  constructor(private readonly app: App) {}

  async key(...keys: string[]): Promise<void> {
    this.actions += 1;
    await (keys.length > 1 ? this.app.chord(...keys) : this.app.keys(...keys));
  }

  /** A drag on the stilled picture, or on what else is given. */
  async drag(from: Point, to: Point, on?: WebElement): Promise<void> {
    this.actions += 1;
    const still = By.css('[data-testid="still"]');
    const place = on ?? (await this.app.driver.wait(until.elementLocated(still), WAIT));
    await this.app.drag(place, from, to);
  }

  /** A click, or a field that is typed. */
  async does(act: () => Promise<unknown>): Promise<void> {
    this.actions += 1;
    await act();
  }
}

/** Asks the app for something as a program would. */
export async function ask(path: string, method: string, body: object): Promise<Response> {
  const answer = await fetch(appUrl() + path, {
    method,
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  });
  if (!answer.ok) throw new Error(await answer.text());
  return answer;
}

export const post = async (path: string, body: object): Promise<{ id: string }> =>
  (await (await ask(path, 'POST', body)).json()) as { id: string };

/** A routine with a key. @returns its id */
export const addRoutine = async (key: string, way: Partial<Way>): Promise<string> =>
  (await post('/api/routines', { name: `By ${key}`, key, way: { ...firstWay, ...way } })).id;
