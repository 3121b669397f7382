import { create } from 'zustand';
import { z } from 'zod';
import { addressProblem } from '@/core/contracts/page';
import { ApiError } from '../../../api/ask';
import { api } from '../../../api/client';
import { storeSettings, useSettings } from '../../../settings/settingsStore';
import type { Unseen, Stilled, Wanted } from '../contract';

interface WebStore {
  /** What stands in the address field, where that is no address. */
  typed: string | null;
  /** The page that is taken, and what goes on with it. */
  taking: { address: string; progress: string } | null;
  /** A host in one's own network, until it is said whether pages may be taken from there. */
  asking: { host: string; answer: (allowed: boolean) => void } | null;
}

export const useWeb = create<WebStore>(() => ({ typed: null, taking: null, asking: null }));

const LOOK = 400;
const privateHost = z.object({ host: z.string().min(1) });

/** Takes the page, asking for leave where its host is in one's own network. */
async function hold(id: string, { page, signal }: Wanted) {
  const asked = new Set<string>();
  for (;;) {
    try {
      return await api.stillPage(id, page, signal);
    } catch (error) {
      if (signal?.aborted || !(error instanceof ApiError) || error.code !== 'private-address')
        throw error;
      const { host } = privateHost.parse(error.body);
      if (asked.has(host)) throw error;
      asked.add(host);
      if (!(await isAllowed(host, signal)))
        throw new Error(`Nothing was taken, as ${host} was not allowed.`, {
          cause: error,
        });
      await storeSettings({ pageHosts: [...useSettings.getState().settings.pageHosts, host] });
    }
  }
}

function isAllowed(host: string, signal?: AbortSignal): Promise<boolean> {
  return new Promise((resolve) => {
    const answer = (allowed: boolean) => {
      useWeb.setState({ asking: null });
      resolve(allowed);
    };
    useWeb.setState({ asking: { host, answer } });
    signal?.addEventListener('abort', () => answer(false), { once: true });
  });
}

async function still(wanted: Wanted): Promise<Stilled> {
  const { page } = wanted;
  if (page.address === '')
    throw new Error(addressProblem(useWeb.getState().typed ?? '') ?? addressProblem('') ?? '');
  const id = crypto.randomUUID();
  const { address } = page;
  const tell = (progress: string | null) =>
    progress && useWeb.setState({ taking: { address, progress } });
  tell('Asks for the page …');
  const look = setInterval(() => {
    void api.pageProgress(id).then(tell, () => undefined);
  }, LOOK);
  try {
    const held = await hold(id, wanted);
    const png = await api.pageFrame(id);
    return {
      ...{ png, picture: await createImageBitmap(png), said: held.said },
      title: held.title,
      origin: { x: 0, y: 0 },
      windows: null,
      focused: null,
      pointer: null,
      described: () => api.pageParts(id),
      letGo: () => void api.dropPage(id).catch(() => undefined),
      provenance: {
        source: 'web',
        takenAt: held.takenAt,
        address: held.address,
        windowTitle: held.title,
      },
    };
  } finally {
    clearInterval(look);
    useWeb.setState({ taking: null });
  }
}

export const webSource: Unseen = {
  name: 'web',
  label: 'Web page',
  can: {
    windows: 'A page is one picture. Part knows its links, fields and pictures by name.',
    series: true,
    back: 'A page is fetched when it is taken: there is no moment before that.',
    clip: 'A page by its address is taken as it stands. To record one, share its tab.',
    long: 'Full screen takes a page in its whole length by itself.',
    pointer: { not: 'A page taken by its address has no pointer; one can be put on in Mark.' },
  },
  full: { note: 'The whole page', take: 'Take the page' },
  displays: () => [],
  still,
};
