import { By, type WebElement } from 'selenium-webdriver';
import type { Point } from '@/core/geometry/point';
import type { Mark } from '@/core/marks/registry';
import { getShot, plainPng, sendShot, type App } from './app';

/** Drawing on a shot of 600 × 400 in the page. */
export class Marking {
  static readonly view = { x: 0, y: 0, width: 600, height: 400 };

  constructor(private readonly app: App) {}

  /** A fresh shot, open in Mark; white unless another picture is given. */
  async open(marks: readonly Mark[] = [], picture?: Buffer): Promise<string> {
    const document = JSON.stringify({ version: 4, view: { crop: Marking.view }, marks });
    const frame = picture ?? (await plainPng(600, 400, '#FFFFFF'));
    const id = await sendShot(frame, 'Sheet', { document });
    await this.app.openShot(id);
    return id;
  }

  stage(): Promise<WebElement> {
    return Promise.resolve(this.app.driver.findElement(By.css('[data-testid="stage"]')));
  }

  at(x: number, y: number): Promise<Point> {
    return this.app.stagePoint(Marking.view, { x, y });
  }

  async drag(ax: number, ay: number, bx: number, by: number): Promise<void> {
    await this.app.drag(await this.stage(), await this.at(ax, ay), await this.at(bx, by), 8);
  }

  async click(x: number, y: number): Promise<void> {
    await this.app.clickAt(await this.stage(), await this.at(x, y));
  }

  /** What the server has. */
  async marksOf(id: string): Promise<readonly Mark[]> {
    await this.app.stored();
    return (await getShot(id)).document.marks;
  }
}
