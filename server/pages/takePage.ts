import { z } from 'zod';
import type { Page } from '@/core/contracts/page';
import { Fault } from '../base/fault';
import { browserUser, openBrowser } from './browser';
import { pageFault, saidOf } from './faults';
import { goTo } from './goTo';
import { openProxy } from './proxy';
import type { Reach } from './reach';
import { readPage, type Read } from './read';
import { openTab, TabCrashed, TabHangs } from './tab';
import { picture } from './whole';

/** All of it, ms. */
const LONGEST = 180_000;
const MOST_BYTES = 300_000_000;

/** A page as it was taken; nothing of it is read where the address led to a picture. */
export interface TakenPage extends Partial<Read> {
  /** A picture file: of the page, PNG; or as the address gave it. */
  bytes: Buffer;
  address: string;
  takenAt: Date;
  said: string[];
}

const body = z.object({ body: z.string(), base64Encoded: z.boolean() });
/** What is drawn as a page, though it is called a picture. */
const isPicture = (type: string): boolean => type.startsWith('image/') && !type.includes('svg');

/**
 * Takes the page at an address, in a browser of its own.
 * @param tell what goes on now, in words
 * @throws Fault 409, 422, 502, 503
 */
export async function takePage(
  page: Page,
  reach: Reach,
  tell: (words: string) => void,
  signal: AbortSignal,
): Promise<TakenPage> {
  const late = AbortSignal.timeout(LONGEST);
  const ended = AbortSignal.any([signal, late]);
  const proxy = await openProxy({ ...reach, uid: browserUser(), most: MOST_BYTES });
  try {
    const browser = await openBrowser(proxy.port);
    // Whatever is waited for ends with it.
    const stop = () => void browser.close();
    ended.addEventListener('abort', stop, { once: true });
    try {
      ended.throwIfAborted();
      const tab = await openTab(browser, page);
      tell('Waits until the page is at rest …');
      const taken = (async (): Promise<TakenPage> => {
        const answered = await goTo(tab, page, proxy, ended);
        if (answered.status === 401) throw pageFault('login');
        const { address } = answered;
        if (isPicture(answered.type)) {
          const got = body.parse(
            await tab.ask('Network.getResponseBody', { requestId: answered.request }),
          );
          const bytes = Buffer.from(got.body, got.base64Encoded ? 'base64' : 'utf8');
          return { bytes, address, takenAt: new Date(), said: saidOf(answered.status) };
        }
        const shown = await picture(tab, page, tell, ended);
        const takenAt = new Date();
        const read = await readPage(tab, page.scale, shown);
        const said = [...saidOf(answered.status), ...shown.said];
        return { bytes: shown.png, address, takenAt, said, ...read };
      })();
      return await Promise.race([taken, tab.crashed, browser.crashed]);
    } catch (error) {
      throw inWords(error, { late: late.aborted, why: browser.ended(), full: proxy.isFull() });
    } finally {
      ended.removeEventListener('abort', stop);
      await browser.close();
    }
  } finally {
    proxy.close();
  }
}

function inWords(
  error: unknown,
  { late, why, full }: { late: boolean; why: 'memory' | 'crash' | null; full: boolean },
): unknown {
  if (late) return pageFault('too-long');
  if (why) return pageFault(why);
  if (error instanceof Fault) return error;
  if (full) return pageFault('too-many-bytes');
  if (error instanceof TabCrashed) return pageFault('crash');
  if (error instanceof TabHangs) return pageFault('hangs');
  return error;
}
