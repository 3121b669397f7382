import { createServer, type Server } from 'node:http';
import { networkInterfaces } from 'node:os';
import { answerLink } from './answer';

/** The second listener serves nothing but links, to other machines; it runs only when Setup says so. */
interface Held {
  rezzikLinks?: { server: Server; port: number } | null;
}
/** Start-up and requests may load this file each for themselves; the listener is one. */
const held = globalThis as Held;

/** The first address of this computer that others can reach. */
function ownAddress(): string {
  const all = Object.values(networkInterfaces()).flatMap((list) => list ?? []);
  return all.find((one) => one.family === 'IPv4' && !one.internal)?.address ?? '127.0.0.1';
}

/** Where others reach links; null while the listener is closed. */
export const openBase = (): string | null => {
  const { rezzikLinks } = held;
  return rezzikLinks ? `http://${ownAddress()}:${rezzikLinks.port}` : null;
};

/**
 * Opens the listener on a port, or closes it with null. @throws when the port is taken; then the
 * listener stays where it was
 */
export async function openLinks(port: number | null): Promise<void> {
  const before = held.rezzikLinks;
  if (before?.port === port) return;
  held.rezzikLinks = port === null ? null : { server: await listen(port), port };
  before?.server.close();
  // Who reads slowly does not keep it open.
  before?.server.closeAllConnections();
}

async function listen(port: number): Promise<Server> {
  const server = createServer((request, response) => {
    const path = (request.url ?? '').split('?')[0] ?? '';
    const allowed = request.method === 'GET' || request.method === 'HEAD';
    answerLink(allowed && path.startsWith('/v/') ? path : '/v/none').then(
      ({ status, headers, body }) => {
        response.writeHead(status, headers);
        response.end(request.method === 'HEAD' ? undefined : body);
      },
      () => {
        response.writeHead(500);
        response.end();
      },
    );
  });
  // Others may be slow, but not for ever.
  server.requestTimeout = 15_000;
  server.headersTimeout = 10_000;
  server.maxConnections = 50;
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '0.0.0.0', () => resolve());
  });
  return server;
}
