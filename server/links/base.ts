import { createSocket } from 'node:dgram';
import type { Server } from 'node:http';
import { networkInterfaces } from 'node:os';
import { shared } from '../base/shared';

interface Door {
  open: { server: Server; port: number } | null;
  /** By which others reach this computer. */
  address: string | null;
}

/**
 * The second door: open to other machines only when Setup says so.
 */
export const door = shared<Door>('door', () => ({ open: null, address: null }));

/** The first address of this computer that others can reach. */
function firstAddress(): string {
  const all = Object.values(networkInterfaces()).flatMap((list) => list ?? []);
  return all.find((one) => one.family === 'IPv4' && !one.internal)?.address ?? '127.0.0.1';
}

/** An address of documentation (RFC 5737): whatever leads there leads out. */
const OUT = '192.0.2.1';

/**
 * Notes by which address this computer goes out: of several, as with virtual machines, others reach
 * it by that one. Nothing is sent; networks come and go, so it is asked whenever it matters.
 */
export async function noteAddress(): Promise<void> {
  const socket = createSocket('udp4');
  door.address = await new Promise<string | null>((resolve) => {
    socket.once('error', () => resolve(null));
    socket.connect(9, OUT, () => resolve(socket.address().address));
  });
  socket.close();
}

/** Where others reach this computer; null while the second door is closed. */
export const openBase = (): string | null => {
  const { open, address } = door;
  return open ? `http://${address ?? firstAddress()}:${open.port}` : null;
};
