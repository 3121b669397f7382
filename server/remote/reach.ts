import { lookup } from 'node:dns';
import { BlockList, isIP, type LookupFunction } from 'node:net';
import { RemoteProblem } from './problems';

/** Addresses that no remote folder has: of the link alone, of metadata services, of nobody. */
const forbidden = new BlockList();
forbidden.addSubnet('169.254.0.0', 16, 'ipv4');
forbidden.addAddress('100.100.100.200', 'ipv4');
forbidden.addSubnet('0.0.0.0', 8, 'ipv4');
forbidden.addSubnet('224.0.0.0', 3, 'ipv4');
forbidden.addSubnet('fe80::', 10, 'ipv6');
forbidden.addAddress('fd00:ec2::254', 'ipv6');
forbidden.addAddress('::', 'ipv6');
forbidden.addSubnet('ff00::', 8, 'ipv6');

/** This computer itself: what is said there nobody else hears. */
const loopback = new BlockList();
loopback.addSubnet('127.0.0.0', 8, 'ipv4');
loopback.addAddress('::1', 'ipv6');

const lies = (address: string, list: BlockList): boolean =>
  list.check(address, isIP(address) === 6 ? 'ipv6' : 'ipv4');

/** The host of an address, without the brackets of IPv6. */
export const hostOf = (url: URL): string => url.hostname.replace(/^\[|\]$/g, '');

export const isLoopback = (host: string): boolean =>
  host === 'localhost' || (isIP(host) !== 0 && lies(host, loopback));

const refusal = () =>
  new RemoteProblem('This address is one that Rezzik does not send to.', 'forbidden-address');

/** @throws RemoteProblem when a host is written as an address that is never sent to */
export function refuseForbidden(host: string): void {
  if (isIP(host) && lies(host, forbidden)) throw refusal();
}

/** Looks a name up and refuses what it leads to, so that the very address used was checked. */
export const guardedLookup: LookupFunction = (host, options, done) => {
  lookup(host, { ...options, all: true }, (error, found) => {
    if (error) return done(error, '', 4);
    const allowed = found.filter(({ address }) => !lies(address, forbidden));
    if (allowed.length === 0) return done(refusal(), '', 4);
    if (options.all) return done(null, allowed);
    const [{ address, family } = { address: '', family: 4 }] = allowed;
    done(null, address, family);
  });
};
