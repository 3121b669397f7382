import { By } from 'selenium-webdriver';
import { film } from '@/server/tests/clipFilms';
import { post } from './hand';

import { appUrl } from './browser';
import { app, browser } from './suite';

/** A clip of a small film, brought by the API. @returns its id */
export async function sendClip(title: string): Promise<string> {
  const id = crypto.randomUUID();
  const provenance = { source: 'desk', takenAt: new Date().toISOString(), display: 'Left' };
  await post('/api/clips', { id, title, provenance, type: 'video/x-matroska' });
  await fetch(`${appUrl()}/api/clips/${id}/pieces/0`, {
    method: 'PUT',
    body: new Uint8Array(film(30)),
  });
  await post(`/api/clips/${id}/end`, { pieces: 1 });
  return id;
}

/** Which picture is in sight, by the time line. */
export const inSight = async (): Promise<number> =>
  Number(
    await browser.driver
      .findElement(By.css('[role="slider"][aria-label="Time line"]'))
      .getAttribute('aria-valuenow'),
  );
export const showsPicture = (number: number): Promise<void> =>
  app.until(`picture ${number}`, async () => (await inSight()) === number);
