// The front of the app: listens on this computer's own addresses and lets in only whoever owns
// this process. Asked once a connection, before a word of a request is looked at.

import { createServer } from 'node:http';
import { peerOf } from './peer.mjs';

/** How long an idle connection stays open, ms: a shorter time closes it under the hands of whoever
 * sends a picture on it just then. */
const KEEP_ALIVE = 75_000;
/** How long the head of a request, and a whole request, may take to arrive, ms. */
const HEAD = 20_000;
const REQUEST = 300_000;
/** Connections at a time: more than a browser and all scripts need, less than a process may open. */
const MOST = 800;
/** Connections of others at a time, and how long they may stay, ms. */
const MOST_STRANGERS = 50;
const STRANGER = 5_000;

const words = {
  400: 'This request cannot be read.',
  403: 'Rezzik answers only to the user who started it.',
  405: 'Rezzik does not know this kind of request.',
};

/** An answer in plain words, after which the connection is closed. */
const answer = (status, reason) =>
  `HTTP/1.1 ${status} ${reason}\r\nContent-Type: text/plain; charset=utf-8\r\n` +
  `Content-Length: ${Buffer.byteLength(words[status])}\r\nConnection: close\r\n\r\n${words[status]}`;

function turnAway(socket, status, reason) {
  if (!socket.writable) return socket.destroy();
  socket.end(answer(status, reason));
  // Whoever goes on sending is not waited for.
  setTimeout(() => socket.destroy(), 1_000).unref();
}

function isReadable(url = '') {
  try {
    decodeURIComponent(url);
    return true;
  } catch {
    return false;
  }
}

/**
 * @param handle answers a request
 * @param upgrade takes over a connection (only while developing); null for none
 * @param owner the uid that may enter
 */
export function createFront({ handle, upgrade = null, owner = process.getuid() }) {
  const checks = new WeakMap();
  let strangers = 0;

  async function check(socket) {
    const isOwner = (await peerOf(socket)) === owner;
    if (isOwner || socket.destroyed) return isOwner;
    strangers += 1;
    socket.once('close', () => (strangers -= 1));
    socket.setTimeout(STRANGER, () => socket.destroy());
    if (strangers > MOST_STRANGERS) socket.destroy();
    return false;
  }

  /** Calls `act` for the owner; everybody else is turned away, and so is what cannot be read. */
  async function letIn(request, socket, act) {
    if (!(await checks.get(socket))) return turnAway(socket, 403, 'Forbidden');
    if (request.method === 'TRACE' || request.method === 'CONNECT')
      return turnAway(socket, 405, 'Method Not Allowed');
    if (!isReadable(request.url)) return turnAway(socket, 400, 'Bad Request');
    return act();
  }

  const server = createServer({
    keepAliveTimeout: KEEP_ALIVE,
    headersTimeout: HEAD,
    requestTimeout: REQUEST,
    connectionsCheckingInterval: 5_000,
  });
  server.maxConnections = MOST;
  const refuse = (socket) => () => turnAway(socket, 400, 'Bad Request');
  server.on('connection', (socket) => checks.set(socket, check(socket)));
  server.on('request', (request, response) =>
    letIn(request, request.socket, () => handle(request, response)).catch(refuse(request.socket)),
  );
  server.on('checkContinue', (request, response) =>
    letIn(request, request.socket, () => {
      response.writeContinue();
      return handle(request, response);
    }).catch(refuse(request.socket)),
  );
  const takeOver = (request, socket, head) =>
    letIn(request, socket, () =>
      upgrade ? upgrade(request, socket, head) : turnAway(socket, 400, 'Bad Request'),
    ).catch(refuse(socket));
  server.on('upgrade', takeOver);
  server.on('connect', takeOver);
  server.on('clientError', (_, socket) => turnAway(socket, 400, 'Bad Request'));
  return server;
}

/** This computer's own addresses. */
export const ownHosts = ['127.0.0.1', '::1'];

/** No such address on this computer: it has no IPv6, for one. */
export const absent = ['EADDRNOTAVAIL', 'EAFNOSUPPORT', 'EINVAL'];

/**
 * Listens on both of this computer's own addresses, so that “localhost” never leads to a program of
 * somebody else. @throws when the port is taken on either
 */
export async function openFront(port, options) {
  const servers = [];
  for (const host of ownHosts) {
    const server = createFront(options);
    const error = await new Promise((resolve) => {
      server.once('error', resolve);
      server.listen({ port, host, ipv6Only: host === '::1' }, () => resolve(null));
    });
    if (!error) servers.push(server);
    else if (host === '127.0.0.1' || !absent.includes(error.code)) {
      servers.forEach((open) => open.close());
      throw error;
    }
  }
  return servers;
}
