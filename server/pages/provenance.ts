import type { Provenance } from '@/core/contracts/provenance';
import { limits } from '@/core/values/limits';
import { asLine } from '@/core/values/text';
import type { TakenPage } from './takePage';

/** Where a page was taken from, as it stands with its shot: where the address led, without a login. */
export const provenanceOf = ({ address, takenAt, title }: TakenPage): Provenance => ({
  source: 'web',
  takenAt: takenAt.toISOString(),
  address: withoutLogin(address),
  ...(title && { windowTitle: title }),
});

function withoutLogin(address: string): string {
  const url = new URL(address);
  url.username = '';
  url.password = '';
  return asLine(url.href, limits.pathLength);
}
