// Who is at the other end of a connection on this computer. Linux writes every TCP socket with its
// owner into /proc/net/tcp and tcp6 (proc(5)): local and remote address in hexadecimal, uid, inode.

import { readFileSync } from 'node:fs';
import { isIPv4 } from 'node:net';
import { endianness } from 'node:os';
import { setTimeout as pause } from 'node:timers/promises';

const TABLES = ['/proc/net/tcp', '/proc/net/tcp6'];

/** The eight groups of an IPv6 address, also where it is shortened or ends in an IPv4 one. */
function groupsOf(address) {
  const dotted = /^(.*:)(\d+)\.(\d+)\.(\d+)\.(\d+)$/.exec(address);
  if (dotted) {
    const [a, b, c, d] = dotted.slice(2).map(Number);
    return groupsOf(`${dotted[1]}${((a << 8) | b).toString(16)}:${((c << 8) | d).toString(16)}`);
  }
  const [head, tail] = address.split('::');
  const split = (part) => (part ? part.split(':').map((group) => parseInt(group, 16)) : []);
  if (tail === undefined) return split(head);
  const [before, after] = [split(head), split(tail)];
  return [...before, ...Array(8 - before.length - after.length).fill(0), ...after];
}

function bytesOf(address) {
  if (isIPv4(address)) return address.split('.').map(Number);
  return groupsOf(address.split('%')[0]).flatMap((group) => [group >> 8, group & 255]);
}

/** An end of a connection as the tables write it: words of 32 bits in the machine's own order. */
export function tableForm(address, port) {
  const bytes = bytesOf(address);
  const words = [];
  for (let i = 0; i < bytes.length; i += 4) {
    const word = bytes.slice(i, i + 4);
    if (endianness() === 'LE') word.reverse();
    words.push(word.map((byte) => byte.toString(16).padStart(2, '0')).join(''));
  }
  return `${words.join('')}:${port.toString(16).padStart(4, '0')}`.toUpperCase();
}

/** A connection over IPv4 may stand in either table: clients may use sockets of IPv6 for it. */
const formsOf = (address, port) => {
  const plain = address.replace(/^::ffff:(?=\d+\.)/i, '');
  const all = isIPv4(plain) ? [plain, `::ffff:${plain}`] : [plain];
  return all.map((one) => tableForm(one, port));
};

/**
 * Finds the owner of a socket in a table.
 * @param table the text of /proc/net/tcp or tcp6
 * @returns the uid; null when it is not listed, or belongs to no process any more
 */
export function ownerIn(table, local, remote) {
  for (const line of table.split('\n')) {
    const [, from, to, , , , , uid, , inode] = line.trim().split(/\s+/);
    if (local.includes(from) && remote.includes(to) && inode !== '0') return Number(uid);
  }
  return null;
}

/** Read at once: it is memory, while Node's threads for files may all be busy with pictures. */
function read(file) {
  try {
    return readFileSync(file, 'latin1');
  } catch {
    return '';
  }
}

/** A table is read while it changes, and a row may be passed over. */
const TRIES = 3;

/**
 * The uid of whoever opened a connection to us.
 * @param socket as a server of node:net gives it
 * @returns null when that cannot be found out: then it is nobody we know
 */
export async function peerOf({ remoteAddress, remotePort, localAddress, localPort }) {
  if (!remoteAddress || !localAddress) return null;
  const theirs = formsOf(remoteAddress, remotePort);
  const ours = formsOf(localAddress, localPort);
  for (let attempt = 1; attempt <= TRIES; attempt += 1) {
    for (const file of TABLES) {
      const owner = ownerIn(read(file), theirs, ours);
      if (owner !== null) return owner;
    }
    await pause(5 * attempt);
  }
  return null;
}
