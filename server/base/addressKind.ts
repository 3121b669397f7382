import { BlockList, isIP } from 'node:net';

/**
 * Who is at an IP address: everybody's network, one's own network, this computer, or nobody that is
 * ever to be asked (of the link alone, of metadata services, of no host).
 */
export type AddressKind = 'public' | 'private' | 'loopback' | 'never';

type Subnet = [net: string, prefix: number];

/**
 * Networks of IPv4, also as they are written in IPv6: mapped (RFC 4291; BlockList sees that by
 * itself) and behind NAT64 (RFC 6052).
 */
function listOf(ipv4: readonly Subnet[], ipv6: readonly Subnet[]): BlockList {
  const list = new BlockList();
  for (const [net, prefix] of ipv4) {
    list.addSubnet(net, prefix, 'ipv4');
    list.addSubnet(`64:ff9b::${net}`, 96 + prefix, 'ipv6');
  }
  for (const [net, prefix] of ipv6) list.addSubnet(net, prefix, 'ipv6');
  return list;
}

/** The IANA special-purpose registries, as of RFC 6890 and its successors. */
const never = listOf(
  [
    ['0.0.0.0', 8],
    ['169.254.0.0', 16],
    ['100.100.100.200', 32],
    ['192.0.0.0', 24],
    ['224.0.0.0', 3],
  ],
  [
    ['::', 128],
    ['fe80::', 10],
    ['ff00::', 8],
    ['fd00:ec2::254', 128],
    // Tunnels, which hide an address of IPv4 in their own.
    ['2001::', 32],
    ['2002::', 16],
    ['64:ff9b:1::', 48],
  ],
);
const loopback = listOf([['127.0.0.0', 8]], [['::1', 128]]);
const own = listOf(
  [
    ['10.0.0.0', 8],
    ['100.64.0.0', 10],
    ['172.16.0.0', 12],
    ['192.168.0.0', 16],
    ['198.18.0.0', 15],
  ],
  [
    ['fc00::', 7],
    ['fec0::', 10],
  ],
);

/** @param address of IPv4 or IPv6, without brackets and port; what is none is nobody's */
export function addressKind(address: string): AddressKind {
  const version = isIP(address);
  if (version === 0) return 'never';
  const lies = (list: BlockList) => list.check(address, version === 6 ? 'ipv6' : 'ipv4');
  if (lies(never)) return 'never';
  if (lies(loopback)) return 'loopback';
  return lies(own) ? 'private' : 'public';
}
