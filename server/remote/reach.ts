import { lookup } from 'node:dns';
import { isIP, type LookupFunction } from 'node:net';
import { addressKind } from '../base/addressKind';
import { RemoteProblem } from './problems';

/** The host of an address, without the brackets of IPv6. */
export const hostOf = (url: URL): string => url.hostname.replace(/^\[|\]$/g, '');

/** This computer itself: what is said there nobody else hears. */
export const isLoopback = (host: string): boolean =>
  host === 'localhost' || (isIP(host) !== 0 && addressKind(host) === 'loopback');

const refusal = () =>
  new RemoteProblem('This address is one that Rezzik does not send to.', 'forbidden-address');

/** @throws RemoteProblem when a host is written as an address that is never sent to */
export function refuseForbidden(host: string): void {
  if (isIP(host) && addressKind(host) === 'never') throw refusal();
}

/** Looks a name up and refuses what it leads to, so that the very address used was checked. */
export const guardedLookup: LookupFunction = (host, options, done) => {
  lookup(host, { ...options, all: true }, (error, found) => {
    if (error) return done(error, '', 4);
    const allowed = found.filter(({ address }) => addressKind(address) !== 'never');
    if (allowed.length === 0) return done(refusal(), '', 4);
    if (options.all) return done(null, allowed);
    const [{ address, family } = { address: '', family: 4 }] = allowed;
    done(null, address, family);
  });
};
