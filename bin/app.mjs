// The process that serves Rezzik: Next's handler behind a front of our own (bin/lib/front.mjs).
// Started by bin/lib/serve.mjs as `node bin/app.mjs start|dev`.

import { EventEmitter } from 'node:events';
import next from 'next';
import { openFront } from './lib/front.mjs';
import { top } from './lib/paths.mjs';
import { letThreadsYield } from './lib/priority.mjs';

// What this process writes is for its owner alone; kept copies take after their folder.
process.umask(0o077);

const dev = process.argv[2] === 'dev';
const port = Number(process.env.REZZIK_PORT);
// Next would hang its own listener for web sockets upon our server; it gets this one instead.
const httpServer = new EventEmitter();
const app = next({ dev, dir: top, hostname: '127.0.0.1', port, httpServer });
await app.prepare();
await letThreadsYield();
const servers = await openFront(port, {
  handle: app.getRequestHandler(),
  upgrade: dev ? (...all) => httpServer.emit('upgrade', ...all) : null,
});

/** Requests under way are answered to their end, but not waited for longer than this, ms. */
const PATIENCE = 2_000;
let stopping = false;
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) {
  process.on(signal, () => {
    if (stopping) return;
    stopping = true;
    setTimeout(() => process.exit(0), PATIENCE).unref();
    const closed = servers.map((server) => new Promise((resolve) => server.close(resolve)));
    servers.forEach((server) => server.closeIdleConnections());
    void Promise.all(closed).then(() => process.exit(0));
  });
}
