import sharp from 'sharp';
import { By, Key, until, type WebElement } from 'selenium-webdriver';
import type { Driver } from 'selenium-webdriver/chrome.js';
import { shotPageSchema, shotSchema, type Shot } from '@/core/contracts/shot';
import type { SettingsPatch } from '@/core/contracts/settings';
import type { Way } from '@/core/contracts/way';
import { createDesk, deskDisplays, type Desk } from '@/core/desk/model';
import { placeOf } from '@/core/desk/events';
import type { Point } from '@/core/geometry/point';
import { appUrl } from './browser';

/** As long as a very busy machine may need; nobody waits for it where all goes well. */
export const WAIT = 30_000;

/** The app as a person sees it: by names, words and keys. */
export class App {
  constructor(readonly driver: Driver) {}

  async go(path: string): Promise<void> {
    await this.driver.get(appUrl() + path);
  }

  /** Opens a shot in Mark as the interface does, without loading the page anew where it is there. */
  async openShot(id: string): Promise<void> {
    const path = `/shots/${id}`;
    const inside = await this.driver.executeScript<boolean>(
      `if (!document.getElementById('status-slot') || location.pathname === arguments[0]) return false;
       history.pushState(null, '', arguments[0]);
       window.dispatchEvent(new PopStateEvent('popstate'));
       return true;`,
      path,
    );
    if (!inside) await this.go(path);
    await this.driver
      .wait(until.elementLocated(By.css(`[data-of="${id}"] canvas`)), WAIT)
      .catch((error: unknown) => this.withWords(error));
  }

  /** What the page says instead tells why something was not seen. */
  private async withWords(error: unknown): Promise<never> {
    const words = await this.driver.findElement(By.css('body')).getText();
    throw new Error(`${String(error)} The page says: ${words.slice(0, 2_000)}`);
  }

  /** Take, with the desk drawn and ready. */
  async take(): Promise<WebElement> {
    await setWay({ source: 'desk', display: 'Left' });
    await this.go('/take');
    return this.desk();
  }

  desk(): Promise<WebElement> {
    return this.driver.wait(
      until.elementLocated(By.css('canvas[aria-label="Practice desk, live"]')),
      WAIT,
    );
  }

  stage(): Promise<WebElement> {
    return this.driver.wait(until.elementLocated(By.css('[data-testid="stage"] canvas')), WAIT);
  }

  /** A control by its accessible name, of any kind; else a button or link that begins so. */
  async named(name: string, within = '', wait = WAIT): Promise<WebElement> {
    const quoted = JSON.stringify(name);
    const exact = `[@aria-label=${quoted} or normalize-space(.)=${quoted} or @title=${quoted}]`;
    const begins = `[starts-with(normalize-space(.), ${quoted})]`;
    const ways = [
      `${within}//*[self::button or self::a or self::input or self::select or self::textarea or @role]${exact}`,
      `${within}//*[self::button or self::a]${begins}`,
      `${within}//*[@id=//label${begins}/@for]`,
    ];
    let found: WebElement | undefined;
    await this.until(
      `no control named ${name}`,
      async () => {
        for (const way of ways) found ??= (await this.driver.findElements(By.xpath(way)))[0];
        return found !== undefined;
      },
      wait,
    );
    if (!found) throw new Error(`no control named ${name}`);
    return found;
  }

  /** A field by the words of its label. */
  async field(label: string): Promise<WebElement> {
    const quoted = JSON.stringify(label);
    const named = `//label[starts-with(normalize-space(.), ${quoted})]`;
    const xpath = `${named}//input | //input[@id=${named}/@for] | //input[@aria-label=${quoted}]`;
    return this.driver.wait(until.elementLocated(By.xpath(xpath)), WAIT, `no field ${label}`);
  }

  async click(name: string, wait = WAIT): Promise<void> {
    const control = await this.named(name, '', wait);
    await this.until(`${name} can be pressed`, () => control.isEnabled());
    await control.click();
  }

  /** Opens what does not fit on Mark's strip. */
  async moreSettings(): Promise<void> {
    if (await this.has('[aria-label="More settings"]')) await this.click('More settings');
  }

  /** Chooses from a list by the beginning of an option's words; letters would be shortcuts. */
  async choose(list: WebElement, words: string): Promise<void> {
    const option = By.xpath(`.//option[starts-with(., ${JSON.stringify(words)})]`);
    const found = () => list.findElements(option);
    // Some lists are filled by an answer of the server.
    await this.until(
      `no option ${words}`,
      async () => (await found()).length > 0 && (await list.isEnabled()),
    );
    await (await found())[0]?.click();
  }

  async type(label: string, value: string, key: string = Key.ENTER): Promise<void> {
    const field = await this.field(label);
    await field.sendKeys(Key.chord(Key.CONTROL, 'a'), value, key);
  }

  async keys(...keys: string[]): Promise<void> {
    await this.driver
      .actions()
      .sendKeys(...keys)
      .perform();
  }

  async chord(...keys: string[]): Promise<void> {
    const [last, ...held] = [...keys].reverse();
    let actions = this.driver.actions();
    for (const key of held.reverse()) actions = actions.keyDown(key);
    actions = actions.sendKeys(last ?? '');
    for (const key of held) actions = actions.keyUp(key);
    await actions.perform();
  }

  async sees(words: string): Promise<WebElement> {
    return this.driver
      .wait(
        until.elementLocated(By.xpath(`//*[text()[contains(., ${JSON.stringify(words)})]]`)),
        WAIT,
        `not seen: ${words}`,
      )
      .catch((error: unknown) => this.withWords(error));
  }

  async has(css: string): Promise<boolean> {
    return (await this.driver.findElements(By.css(css))).length > 0;
  }

  async until(what: string, test: () => Promise<boolean>, wait = WAIT): Promise<void> {
    await this.driver.wait(test, wait, what, 50).catch((error: unknown) => this.withWords(error));
  }

  /**
   * Waits until fonts and the pictures in sight are there and the page has been drawn with them. It
   * looks anew each time: what React replaces meanwhile is never loaded.
   */
  async atRest(): Promise<void> {
    const waitedFor = () =>
      this.driver.executeScript<string[]>(`
        const isSeen = ({ left, top, right, bottom }) =>
          right > 0 && bottom > 0 && left < innerWidth && top < innerHeight;
        const pictures = [...document.images].filter((image) =>
          !image.complete && isSeen(image.getBoundingClientRect()));
        return [...(document.fonts.status === 'loaded' ? [] : ['fonts']),
          ...pictures.map((image) => image.currentSrc || image.outerHTML.slice(0, 200))];`);
    let last: string[] = [];
    await this.until('the page at rest', async () => {
      last = await waitedFor();
      return last.length === 0;
    }).catch((error: unknown) => {
      throw new Error(`Not at rest: ${last.join(', ')}`, { cause: error });
    });
    await this.driver.executeAsyncScript(
      'requestAnimationFrame(() => requestAnimationFrame(arguments[0]));',
    );
  }

  /** How many entries a store of the browser's own holds that fit a test, written in JavaScript. */
  async held(store: 'outbox' | 'drafts', test: string): Promise<number> {
    return this.driver.executeAsyncScript<number>(`
      const done = arguments[0];
      const open = indexedDB.open('rezzik');
      open.onsuccess = () => {
        const ask = open.result.transaction('${store}').objectStore('${store}').getAll();
        ask.onsuccess = () => done(ask.result.filter((entry) => ${test}).length);
      };`);
  }

  /** Drags between places given in pixels of an element's own content. */
  async drag(element: WebElement, from: Point, to: Point, steps = 4): Promise<void> {
    const at = await placer(element);
    let actions = this.driver
      .actions({ async: true })
      .move({ ...at(from), duration: 0 })
      .press();
    for (let i = 1; i <= steps; i += 1) {
      const p = {
        x: from.x + ((to.x - from.x) * i) / steps,
        y: from.y + ((to.y - from.y) * i) / steps,
      };
      actions = actions.move({ ...at(p), duration: 20 });
    }
    await actions.release().perform();
  }

  async pointAt(element: WebElement, to: Point): Promise<void> {
    const at = await placer(element);
    await this.driver
      .actions({ async: true })
      .move({ ...at(to), duration: 0 })
      .perform();
  }

  async clickAt(element: WebElement, to: Point): Promise<void> {
    const at = await placer(element);
    await this.driver
      .actions({ async: true })
      .move({ ...at(to), duration: 0 })
      .press()
      .release()
      .perform();
  }

  /** A place of the desk's left display, as a place on its canvas. */
  async onDesk(id: string, desk: Desk = freshDesk()): Promise<Point> {
    const place = placeOf(desk, id);
    if (!place) throw new Error(`There is no ${id} on the desk.`);
    return this.deskPoint(place);
  }

  async deskPoint(place: Point): Promise<Point> {
    const { bounds } = deskDisplays[0];
    const { width } = await (await this.desk()).getRect();
    const scale = width / bounds.width;
    return { x: (place.x - bounds.x) * scale, y: (place.y - bounds.y) * scale };
  }

  /** The picture on the clipboard, read the way another page would. */
  async pasted(): Promise<Pixels> {
    const base64 = await this.driver.executeAsyncScript<string>(`
      const done = arguments[0];
      navigator.clipboard.read().then(async ([item]) => {
        const bytes = new Uint8Array(await (await item.getType('image/png')).arrayBuffer());
        let text = '';
        for (const b of bytes) text += String.fromCharCode(b);
        done(btoa(text));
      }).catch((error) => done(String(error)));`);
    return decode(Buffer.from(base64, 'base64'));
  }

  /** Waits until Mark is open, and says of which shot. */
  async marked(): Promise<string> {
    await this.stage();
    return this.id();
  }

  async id(): Promise<string> {
    const url = await this.driver.getCurrentUrl();
    const id = /shots\/([0-9a-f-]{36})/.exec(url)?.[1];
    if (!id) throw new Error(`No shot is open: ${url}`);
    return id;
  }

  /** Waits until the server has everything. */
  async stored(): Promise<void> {
    let line: string | null = null;
    await this.until('all changes stored', async () => {
      line = await this.driver.executeScript<string | null>(
        `return document.querySelector('[data-testid="stored"]')?.textContent`,
      );
      return line?.startsWith('All changes stored') ?? false;
    }).catch((error: unknown) => {
      throw new Error(`The page says: ${line ?? 'nothing'}`, { cause: error });
    });
  }

  /** The frame-to-page transform of Mark's stage when it fits its view. */
  async stagePoint(
    view: { x: number; y: number; width: number; height: number },
    p: Point,
  ): Promise<Point> {
    const stage = await this.driver.findElement(By.css('[data-testid="stage"]'));
    const size = await stage.getRect();
    const scale = Math.min((size.width - 40) / view.width, (size.height - 40) / view.height, 1);
    return {
      x: (size.width - view.width * scale) / 2 + (p.x - view.x) * scale,
      y: (size.height - view.height * scale) / 2 + (p.y - view.y) * scale,
    };
  }
}

/** Turns places within an element into what the driver wants: offsets from its middle, whole. */
async function placer(element: WebElement) {
  const { width, height } = await element.getRect();
  return (p: Point) => ({
    origin: element,
    x: Math.round(p.x - width / 2),
    y: Math.round(p.y - height / 2),
  });
}

/** Changes settings as the interface would. */
export async function changeSettings(patch: SettingsPatch): Promise<void> {
  const answer = await fetch(`${appUrl()}/api/settings`, {
    method: 'PATCH',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(patch),
  });
  if (!answer.ok) throw new Error(await answer.text());
}

export const setWay = (way: Partial<Way>): Promise<void> => changeSettings({ way });

export const freshDesk = (): Desk => createDesk(2026, 0);

/**
 * Reads from the app. A connection that the app let go of while this process was too busy to hear
 * of it is no failure of the app: a read is asked again, once.
 */
export async function read(path: string): Promise<Response> {
  const ask = () => fetch(appUrl() + path);
  return ask().catch((error: unknown) => {
    const { cause } = error as { cause?: { code?: string } };
    if (cause?.code === 'UND_ERR_SOCKET') return ask();
    throw error;
  });
}

export const getShot = async (id: string): Promise<Shot> =>
  shotSchema.parse(await (await read(`/api/shots/${id}`)).json());

export const listShots = async (query = '') =>
  shotPageSchema.parse(await (await read(`/api/shots?limit=200${query}`)).json());

export interface Pixels {
  data: Buffer;
  width: number;
  height: number;
}

/** RGBA of any picture file. */
export async function decode(bytes: ArrayBuffer | Buffer): Promise<Pixels> {
  const { data, info } = await sharp(Buffer.from(bytes as ArrayBuffer))
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height };
}

export const getPixels = async (id: string, what: string): Promise<Pixels> =>
  decode(await (await read(`/api/shots/${id}/${what}`)).arrayBuffer());

export const pixelAt = ({ data, width }: Pixels, x: number, y: number): number[] => [
  ...data.subarray((y * width + x) * 4, (y * width + x) * 4 + 4),
];

/** A PNG of one colour. */
export const plainPng = (width: number, height: number, background: string): Promise<Buffer> =>
  sharp({ create: { width, height, channels: 3, background } })
    .png()
    .toBuffer();

/** Sends a picture as a program would. @returns the shot's id */
export async function sendShot(
  picture: Buffer,
  title: string,
  more: Record<string, string> = {},
): Promise<string> {
  const form = new FormData();
  form.set('frame', new Blob([new Uint8Array(picture)]), 'frame.png');
  form.set('title', title);
  for (const [name, value] of Object.entries(more)) form.set(name, value);
  const answer = await fetch(`${appUrl()}/api/shots`, { method: 'POST', body: form });
  const body = (await answer.json()) as { id: string };
  if (answer.status !== 201) throw new Error(JSON.stringify(body));
  return body.id;
}
