import { z } from 'zod';
import type { Page } from '@/core/contracts/page';
import type { Browser } from './browser';

/** Nothing asked of a page is waited for longer than this, ms: its scripts may hold it up. */
const PATIENCE = 20_000;

export interface Tab {
  ask: (method: string, params?: object) => Promise<unknown>;
  /** What an expression is worth, looked at by a schema. */
  value: <T>(expression: string, schema: z.ZodType<T>) => Promise<T>;
  /** Hears what the page tells. */
  hear: (method: string, told: (params: unknown) => void) => void;
  /** Rejects as soon as the page has crashed. */
  crashed: Promise<never>;
}

const created = z.object({ targetId: z.string() });
const attached = z.object({ sessionId: z.string() });
const isolated = z.object({ executionContextId: z.int() });
const frameTree = z.object({ frameTree: z.object({ frame: z.object({ id: z.string() }) }) });
const evaluated = z.object({
  result: z.object({ value: z.unknown() }),
  exceptionDetails: z.object({ text: z.string() }).optional(),
});
const opened = z.object({
  targetInfo: z.object({ targetId: z.string(), type: z.string() }),
});

export class TabCrashed extends Error {}
export class TabHangs extends Error {}

const inTime = <T>(asked: Promise<T>): Promise<T> => {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new TabHangs()), PATIENCE);
  });
  return Promise.race([asked, late]).finally(() => clearTimeout(timer));
};

/** How high a first screen is, CSS pixels, for a width: that of a screen, or of a phone. */
const screenHeight = (width: number): number => Math.round(width * (width < 600 ? 2 : 0.625));

/** A tab that is as wide and as dark as asked, answers no dialog, saves nothing and opens no other. */
export async function openTab(browser: Browser, page: Page): Promise<Tab> {
  await browser.ask('Browser.setDownloadBehavior', { behavior: 'deny' });
  const { targetId } = created.parse(
    await browser.ask('Target.createTarget', { url: 'about:blank' }),
  );
  const { sessionId } = attached.parse(
    await browser.ask('Target.attachToTarget', { targetId, flatten: true }),
  );
  const ask = (method: string, params?: object) => inTime(browser.ask(method, params, sessionId));
  const hear = (method: string, told: (params: unknown) => void): void =>
    void browser.hear((what) => {
      if (what.session === sessionId && what.method === method) told(what.params);
    });
  const crashed = new Promise<never>((_, reject) =>
    hear('Inspector.targetCrashed', () => reject(new TabCrashed())),
  );
  crashed.catch(() => undefined);
  // What it opens beside itself is not looked at.
  browser.hear(({ method, params }) => {
    if (method !== 'Target.targetCreated') return;
    const { targetInfo } = opened.parse(params);
    if (targetInfo.type === 'page' && targetInfo.targetId !== targetId)
      void browser.ask('Target.closeTarget', { targetId: targetInfo.targetId }).catch(() => null);
  });
  hear('Page.javascriptDialogOpening', () => {
    void ask('Page.handleJavaScriptDialog', { accept: false }).catch(() => null);
  });
  await browser.ask('Target.setDiscoverTargets', { discover: true });
  await ask('Page.enable');
  await ask('Network.enable', { maxTotalBufferSize: 3e8, maxResourceBufferSize: 2e8 });
  await ask('Inspector.enable');
  const { width, scale, dark } = page;
  await ask('Emulation.setDeviceMetricsOverride', {
    ...{ width, height: screenHeight(width), deviceScaleFactor: scale, mobile: false },
  });
  await ask('Emulation.setEmulatedMedia', {
    features: [
      { name: 'prefers-color-scheme', value: dark ? 'dark' : 'light' },
      // What moves comes to rest.
      { name: 'prefers-reduced-motion', value: 'reduce' },
    ],
  });
  await ask('Emulation.setFocusEmulationEnabled', { enabled: true });

  async function value<T>(expression: string, schema: z.ZodType<T>): Promise<T> {
    // In a world of its own: whatever the page has made of its surroundings does not reach it.
    const { frameTree: tree } = frameTree.parse(await ask('Page.getFrameTree'));
    const { executionContextId } = isolated.parse(
      await ask('Page.createIsolatedWorld', { frameId: tree.frame.id, worldName: 'rezzik' }),
    );
    const { result, exceptionDetails } = evaluated.parse(
      await ask('Runtime.evaluate', {
        ...{ expression, contextId: executionContextId },
        ...{ awaitPromise: true, returnByValue: true },
      }),
    );
    if (exceptionDetails) throw new Error(exceptionDetails.text);
    return schema.parse(result.value);
  }
  return { ask, value, hear, crashed };
}
