import { createServer, type IncomingMessage, type Server } from 'node:http';
import { pipeline } from 'node:stream';
import pLimit from 'p-limit';
import { Fault } from '../base/fault';
import { answerPhone } from '../phone/door';
import { door, noteAddress } from '../links/base';
import { answerLink, type LinkAnswer } from '../links/answer';

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
    const before = door.open;
    const same = (before?.port ?? null) === port;
    if (port !== null) await noteAddress();
    const after = same ? before : port === null ? null : { server: await listen(port), port };
    try {
      const written = await write();
      door.open = after;
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

/** A phone may take so long to send its picture, ms; whoever only asks has far less. */
const SENDING = 300_000;

/** Two kinds of address and no more: what a link shows, and where a phone sends its one picture. */
function answerOf(path: string, request: IncomingMessage): Promise<LinkAnswer> {
  const asks = request.method === 'GET' || request.method === 'HEAD';
  if (path.startsWith('/p/') && (asks || request.method === 'POST')) {
    return answerPhone(path, request);
  }
  const known = asks && path.startsWith('/v/');
  return answerLink(known ? (request.url ?? path) : '/v/none', {
    look: request.method === 'HEAD',
    range: request.headers.range ?? null,
  });
}

/** Listens to other machines, which see what links show and send one picture of a phone. */
async function listen(port: number): Promise<Server> {
  const server = createServer((request, response) => {
    const path = (request.url ?? '').split('?')[0] ?? '';
    answerOf(path, request).then(
      ({ status, headers, body, stream }) => {
        response.writeHead(status, { ...headers, Connection: 'close' });
        // Whoever looks may go away in the middle.
        if (stream) pipeline(stream, response, () => undefined);
        else response.end(request.method === 'HEAD' ? undefined : body);
      },
      () => {
        if (!response.headersSent) response.writeHead(500);
        response.end();
      },
    );
  });
  // Others may be slow, but not for ever.
  server.requestTimeout = SENDING;
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
