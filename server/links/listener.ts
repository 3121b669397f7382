import { createServer, type Server } from 'node:http';
import { networkInterfaces } from 'node:os';
import pLimit from 'p-limit';
import { Fault } from '../http/fault';
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

/** One change of the listener at a time: two at once could leave it where nobody asked for it. */
const oneAtATime = pLimit(1);

/**
 * Opens the listener on a port, or closes it with null.
 * @param write remembers the port, while both the old and the new listener are open; when it fails
 *   the new one is closed again, so that setting and listener never disagree
 * @returns what `write` returns
 * @throws Fault 409 when the port is taken; then the listener stays where it was
 */
export function openLinks<T>(port: number | null, write: () => Promise<T>): Promise<T> {
  return oneAtATime(async () => {
    const before = held.rezzikLinks ?? null;
    const same = (before?.port ?? null) === port;
    const after = same ? before : port === null ? null : { server: await listen(port), port };
    try {
      const written = await write();
      held.rezzikLinks = after;
      if (!same && before) close(before.server);
      return written;
    } catch (error) {
      if (!same && after) close(after.server);
      throw error;
    }
  });
}

function close(server: Server): void {
  server.close();
  // Who reads slowly does not keep it open.
  server.closeAllConnections();
}

async function listen(port: number): Promise<Server> {
  const server = createServer((request, response) => {
    const path = (request.url ?? '').split('?')[0] ?? '';
    const allowed = request.method === 'GET' || request.method === 'HEAD';
    answerLink(allowed && path.startsWith('/v/') ? path : '/v/none', {
      look: request.method === 'HEAD',
    }).then(
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
    server.once('error', (error) =>
      reject(
        new Fault(409, 'port-taken', `Port ${port} is in use by another program.`, {
          reason: String(error),
        }),
      ),
    );
    server.listen(port, '0.0.0.0', () => resolve());
  });
  return server;
}
