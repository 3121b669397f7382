import { pageAddress } from '@/core/contracts/page';
import { env } from '../base/env';
import { Fault } from '../base/fault';
import { getSettings } from '../settings/settings';
import { practiceHost } from './practice/site';
import type { Reach } from './reach';

/** @throws Fault 403 while pages may not be taken */
export async function checkPagesAllowed(): Promise<void> {
  if ((await getSettings()).pagesAllowed) return;
  throw new Fault(
    403,
    'pages-off',
    'Pages are taken by their addresses only where Setup › Taking allows it.',
  );
}

/** What a page may reach now. */
export async function reachNow(address: string, allowPrivate: boolean): Promise<Reach> {
  const { pageHosts, linkPort } = await getSettings();
  const host = pageAddress(address)?.hostname.replace(/^\[|\]$/g, '');
  const practice = await practiceHost();
  const database = Number(URL.parse(env().databaseUrl)?.port) || 5432;
  return {
    hosts: new Set([
      ...pageHosts.map((name) => name.toLowerCase()),
      ...(allowPrivate && host ? [host] : []),
      ...(practice ? [practice] : []),
    ]),
    doors: [env().port, database, ...(linkPort === null ? [] : [linkPort])],
  };
}
