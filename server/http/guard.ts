import { Fault } from '../base/fault';

const hostNames = ['127.0.0.1', 'localhost', '[::1]'];

/** Refuses another host name: a name that was pointed at this address. @throws Fault 403 */
export function guardHost(headers: Headers, port: number): string {
  const host = headers.get('host') ?? '';
  if (!hostNames.map((name) => `${name}:${port}`).includes(host.toLowerCase())) {
    throw new Fault(403, 'wrong-host', 'Rezzik answers only to its own address on this computer.');
  }
  return host;
}

/**
 * Refuses what does not come from Rezzik's own pages or from a program on this computer: another
 * host name (a name that was pointed at this address), another origin, another site.
 * @throws Fault 403
 */
export function guard(headers: Headers, port: number): void {
  const host = guardHost(headers, port);
  const site = headers.get('sec-fetch-site');
  const origin = headers.get('origin');
  // What the browser itself sends, for a picture shared by the system, has an origin of nobody.
  const byBrowser = origin === 'null' && site === 'none';
  if (origin !== null && origin !== `http://${host}` && !byBrowser) {
    throw new Fault(403, 'wrong-origin', 'Rezzik answers only to its own pages.');
  }
  if (site !== null && site !== 'same-origin' && site !== 'none') {
    throw new Fault(403, 'wrong-origin', 'Rezzik answers only to its own pages.');
  }
}
