import { setTimeout as pause } from 'node:timers/promises';
import { z } from 'zod';
import type { Page } from '@/core/contracts/page';
import { pageFault } from './faults';
import type { Proxy } from './proxy';
import type { Tab } from './tab';

/** Nothing more is loaded for so long: then it has come to rest, ms. */
const QUIET = 500;
const LONGEST = 15_000;
/** Whatever is asked for still after this goes on by itself: a stream, a long poll. */
const LOADING = 30_000;

const navigated = z.object({
  frameId: z.string(),
  loaderId: z.string().optional(),
  errorText: z.string().optional(),
  isDownload: z.boolean().optional(),
});
const responded = z.object({
  requestId: z.string(),
  type: z.string(),
  frameId: z.string().optional(),
  response: z.object({ url: z.string(), status: z.number(), mimeType: z.string() }),
});
const requested = z.object({ requestId: z.string() });

/** What an address has answered. */
export interface Answered {
  /** After all that led on from there. */
  address: string;
  status: number;
  type: string;
  /** For Network.getResponseBody. */
  request: string;
}

/** How many requests are under way, and when that last changed. */
function watchRequests(tab: Tab): { atRest: (since: number) => boolean } {
  const open = new Set<string>();
  let changed = Date.now();
  const ended = (params: unknown): void => {
    if (open.delete(requested.parse(params).requestId)) changed = Date.now();
  };
  tab.hear('Network.requestWillBeSent', (params) => {
    open.add(requested.parse(params).requestId);
    changed = Date.now();
  });
  tab.hear('Network.loadingFinished', ended);
  tab.hear('Network.loadingFailed', ended);
  return { atRest: () => open.size === 0 && Date.now() - changed >= QUIET };
}

/** Goes to an address and waits there until the page is at rest, or as long as asked. @throws Fault 422, 502 */
export async function goTo(
  tab: Tab,
  { address, wait }: Page,
  proxy: Proxy,
  signal: AbortSignal,
): Promise<Answered> {
  const requests = watchRequests(tab);
  let frame: string | null = null;
  let answered: Answered | null = null;
  tab.hear('Network.responseReceived', (params) => {
    const told = responded.parse(params);
    if (told.type !== 'Document' || (frame !== null && told.frameId !== frame)) return;
    const { url, status, mimeType } = told.response;
    answered = { address: url, status, type: mimeType, request: told.requestId };
  });
  let loaded = false;
  tab.hear('Page.loadEventFired', () => (loaded = true));
  const went = navigated.parse(await tab.ask('Page.navigate', { url: address }));
  frame = went.frameId;
  if (went.isDownload) throw pageFault('download');
  if (went.errorText) throw refusedBy(proxy, address) ?? pageFault(went.errorText);
  const began = Date.now();
  while (!loaded && Date.now() - began < LOADING) await pause(50, undefined, { signal });
  const last = answered as Answered | null;
  const at = last?.address ?? address;
  const refused = refusedBy(proxy, at);
  if (refused) throw refused;
  if (proxy.isFull()) throw pageFault('too-many-bytes');
  if (wait === 'quiet') {
    const from = Date.now();
    while (!requests.atRest(from) && Date.now() - from < LONGEST)
      await pause(50, undefined, { signal });
  } else await pause(wait * 1000, undefined, { signal });
  return last ?? { address, status: 0, type: '', request: '' };
}

/** What the proxy knows about why an address did not answer. */
function refusedBy(proxy: Proxy, address: string): Error | null {
  const url = new URL(address);
  const port = Number(url.port) || (url.protocol === 'https:' ? 443 : 80);
  const host = url.hostname.replace(/^\[|\]$/g, '');
  const why = proxy.refused(host, port);
  return why ? pageFault(why, host) : null;
}
