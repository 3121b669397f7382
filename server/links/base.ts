import type { Server } from 'node:http';
import { networkInterfaces } from 'node:os';

/** Start-up and requests may load this file each for themselves; the second door is one. */
export const door = globalThis as { rezzikLinks?: { server: Server; port: number } | null };

/** The first address of this computer that others can reach. */
function ownAddress(): string {
  const all = Object.values(networkInterfaces()).flatMap((list) => list ?? []);
  return all.find((one) => one.family === 'IPv4' && !one.internal)?.address ?? '127.0.0.1';
}

/** Where others reach this computer; null while the second door is closed. */
export const openBase = (): string | null => {
  const { rezzikLinks } = door;
  return rezzikLinks ? `http://${ownAddress()}:${rezzikLinks.port}` : null;
};
