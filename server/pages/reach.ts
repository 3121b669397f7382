import { lookup } from 'node:dns/promises';
import { isIP } from 'node:net';
import { networkInterfaces } from 'node:os';
import { addressKind } from '../base/addressKind';

/** Why a page, or something on it, is not fetched. */
export type Refusal =
  /** In one's own network, and a person has not been asked about this host. */
  | 'private'
  /** Of the link alone, of a metadata service, of nobody. */
  | 'never'
  /** One of Rezzik's own. */
  | 'own-door'
  /** No address belongs to this name. */
  | 'unknown-host';

export class Refused extends Error {
  constructor(readonly why: Refusal) {
    super(why);
  }
}

export interface Reach {
  /** Hosts in one's own network that a person has allowed, in lower case; “host:port” for one port. */
  hosts: ReadonlySet<string>;
  /** Ports of this computer on which Rezzik itself is heard. */
  doors: readonly number[];
}

const isThisComputer = (address: string): boolean =>
  addressKind(address) === 'loopback' ||
  Object.values(networkInterfaces()).some((all) => all?.some((one) => one.address === address));

/**
 * The address to connect to for a host: looked up once, checked, and connected to as it is, so that a
 * name which leads elsewhere a moment later leads nowhere.
 * @param host a name or an address without brackets
 * @throws Refused
 */
export async function addressFor(host: string, port: number, reach: Reach): Promise<string> {
  const name = host.toLowerCase().replace(/\.$/, '');
  const found = isIP(name)
    ? [name]
    : await lookup(name, { all: true, verbatim: true }).then(
        (all) => all.map(({ address }) => address),
        () => [],
      );
  if (found.length === 0) throw new Refused('unknown-host');
  let why: Refusal = 'never';
  for (const address of found) {
    const kind = addressKind(address);
    if (kind === 'never') continue;
    if (isThisComputer(address) && reach.doors.includes(port)) why = 'own-door';
    else if (kind === 'public' || reach.hosts.has(name) || reach.hosts.has(`${name}:${port}`))
      return address;
    else if (why === 'never') why = 'private';
  }
  throw new Refused(why);
}
