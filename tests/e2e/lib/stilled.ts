import { By, until } from 'selenium-webdriver';
import { WAIT, type App } from './app';

/**
 * The stilled picture once it lies where it stays.
 * @param size of the picture, px
 * @returns also where its pixels are, for a hand: WebDriver counts from the middle
 */
export async function stilled(app: App, size: { width: number; height: number }) {
  const element = By.css('[data-testid="still"]');
  const still = await app.driver.wait(until.elementLocated(element), WAIT);
  let place = await still.getRect();
  await app.until('the picture lies where it stays', async () => {
    const before = place;
    place = await still.getRect();
    return place.width === before.width && place.x === before.x && place.y === before.y;
  });
  const scale = place.width / size.width;
  const at = (x: number, y: number) => ({
    origin: still,
    x: Math.round((x - size.width / 2) * scale),
    y: Math.round((y - size.height / 2) * scale),
    duration: 0,
  });
  return { still, scale, at };
}
