import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { createServer, type Server } from 'node:http';
import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import { exchange } from '../remote/exchange';

/** A remote folder on a slow line: it goes on, and so must the sending; one that stops is left. */

let server: Server;
let stops = false;
let got = 0;

beforeAll(async () => {
  server = createServer((request, response) => {
    got = 0;
    request.on('data', (piece: Buffer) => {
      got += piece.length;
      request.pause();
      if (!stops) setTimeout(() => request.resume(), 40);
    });
    request.on('end', () => response.writeHead(201).end());
  });
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
});
afterAll(() => {
  server.closeAllConnections();
  server.close();
});

const SILENCE = 1_000;
const send = (bytes: number, line?: number) =>
  exchange({
    url: new URL(`http://127.0.0.1:${(server.address() as AddressInfo).port}/`),
    ...{ method: 'PUT', path: '/bed.png', headers: {}, body: Buffer.alloc(bytes) },
    ...{ most: 1_000, fingerprint: null, signal: new AbortController().signal },
    patience: { silence: SILENCE, whole: 60_000, ...(line && { line }) },
  });

test('one that takes several times as long as a silence may last gets all of it', async () => {
  const begun = performance.now();
  const { status } = await send(8_000_000);
  expect(status).toBe(201);
  expect(got).toBe(8_000_000);
  expect(performance.now() - begun).toBeGreaterThan(2 * SILENCE);
}, 30_000);

test('one that stops in the middle is left after a silence', async () => {
  stops = true;
  await expect(send(8_000_000, 100_000)).rejects.toThrow('silence');
  expect(got).toBeLessThan(8_000_000);
}, 30_000);
