import { afterEach, expect, test } from '@jest/globals';
import { createServer, request, type Server } from 'node:http';
import { connect, type AddressInfo } from 'node:net';
import { addressKind } from '../base/addressKind';
import { openProxy, type Proxy, type ProxyWish } from '../pages/proxy';
import { addressFor } from '../pages/reach';

const closing: (() => void)[] = [];
afterEach(() => closing.splice(0).forEach((close) => close()));

const me = process.getuid?.() ?? 0;

async function proxy(wish: Partial<ProxyWish> = {}): Promise<Proxy> {
  const opened = await openProxy({
    ...{ uid: me, most: 1_000_000, hosts: new Set<string>(), doors: [], ...wish },
  });
  closing.push(opened.close);
  return opened;
}

async function site(answer = 'seen'): Promise<number> {
  const server: Server = createServer((asked, response) => {
    if (asked.url === '/on') response.writeHead(302, { Location: 'http://169.254.169.254/' }).end();
    else response.end(`${answer} ${asked.headers.host ?? ''} ${String(asked.headers['proxy-x'])}`);
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  closing.push(() => server.close());
  return (server.address() as AddressInfo).port;
}

/** What comes back through the proxy: the status, and the body. */
const ask = (through: Proxy, url: string): Promise<{ status: number; body: string }> =>
  new Promise((resolve, reject) => {
    request(
      {
        ...{ host: '127.0.0.1', port: through.port, path: url, agent: false },
        headers: { Host: new URL(url).host, 'Proxy-X': 'secret' },
      },
      (answer) => {
        let body = '';
        answer.on('data', (piece: Buffer) => (body += piece.toString()));
        answer.on('end', () => resolve({ status: answer.statusCode ?? 0, body }));
        answer.on('error', reject);
      },
    )
      .on('error', reject)
      .end();
  });

/** What a CONNECT is answered, and what comes when a request is sent through it. */
const tunnel = (through: Proxy, target: string): Promise<string> =>
  new Promise((resolve) => {
    const socket = connect(through.port, '127.0.0.1');
    let heard = '';
    socket.write(`CONNECT ${target} HTTP/1.1\r\nHost: ${target}\r\n\r\n`);
    socket.on('data', (piece: Buffer) => {
      heard += piece.toString();
      if (heard.endsWith('established\r\n\r\n'))
        socket.write('GET / HTTP/1.1\r\nHost: inside\r\nConnection: close\r\n\r\n');
    });
    socket.on('close', () => resolve(heard));
    socket.on('error', () => resolve(heard));
  });

test.each([
  // RFC 6890, RFC 4193, RFC 4291, RFC 6052, RFC 3056 and the metadata addresses clouds document.
  ['203.0.114.9', 'public'],
  ['2606:4700::1111', 'public'],
  ['172.15.0.1', 'public'],
  ['172.16.0.1', 'private'],
  ['192.168.7.7', 'private'],
  ['100.64.0.1', 'private'],
  ['fd12::1', 'private'],
  ['127.8.8.8', 'loopback'],
  ['::1', 'loopback'],
  ['::ffff:127.0.0.1', 'loopback'],
  ['::ffff:a9fe:a9fe', 'never'],
  ['169.254.169.254', 'never'],
  ['100.100.100.200', 'never'],
  ['fd00:ec2::254', 'never'],
  ['0.0.0.0', 'never'],
  ['fe80::1', 'never'],
  ['64:ff9b::169.254.169.254', 'never'],
  ['64:ff9b::10.1.1.1', 'private'],
  ['64:ff9b::8.8.8.8', 'public'],
  ['2002:7f00:1::', 'never'],
  ['no address', 'never'],
])('%s is %s', (address, kind) => expect(addressKind(address)).toBe(kind));

test('a host of this computer is reached only where it was allowed, by its very name', async () => {
  const port = await site();
  const strict = await proxy();
  expect((await ask(strict, `http://127.0.0.1:${port}/`)).status).toBe(502);
  expect(strict.refused('127.0.0.1', port)).toBe('private');
  expect(await tunnel(strict, `127.0.0.1:${port}`)).toMatch(/^HTTP\/1.1 502/);
  const open = await proxy({ hosts: new Set(['localhost']) });
  expect(await ask(open, `http://LOCALHOST:${port}/`)).toEqual({
    ...{ status: 200, body: `seen localhost:${port} undefined` },
  });
  expect(await tunnel(open, `localhost:${port}`)).toContain('seen inside');
  expect((await ask(open, `http://127.0.0.1:${port}/`)).status).toBe(502);
  // Chromium, resolvers and C libraries read these as 127.0.0.1, too.
  for (const odd of [`127.1:${port}`, `[::ffff:127.0.0.1]:${port}`, `0x7f.1:${port}`])
    expect((await ask(open, `http://${odd}/`)).status).toBe(502);
});

test('link-local and metadata addresses are never reached, allowed or not', async () => {
  const hosts = new Set(['169.254.169.254', 'fe80::1', '100.100.100.200']);
  const open = await proxy({ hosts });
  for (const host of ['169.254.169.254', '[fe80::1]', '100.100.100.200', '[::ffff:169.254.1.1]']) {
    expect((await ask(open, `http://${host}/latest`)).status).toBe(502);
    expect(await tunnel(open, `${host}:443`)).toMatch(/^HTTP\/1.1 502/);
  }
  expect(open.refused('169.254.169.254', 80)).toBe('never');
});

test('Rezzik’s own doors are never reached, by whichever name', async () => {
  const port = await site();
  const hosts = new Set(['localhost', '127.0.0.1', '::1']);
  const open = await proxy({ hosts, doors: [port] });
  for (const host of ['localhost', '127.0.0.1', '[::1]'])
    expect((await ask(open, `http://${host}:${port}/`)).status).toBe(502);
  expect(open.refused('localhost', port)).toBe('own-door');
});

test('only whoever it was opened for gets through', async () => {
  const port = await site();
  const hosts = new Set(['127.0.0.1']);
  const others = await proxy({ hosts, uid: me + 1 });
  await expect(ask(others, `http://127.0.0.1:${port}/`)).rejects.toThrow();
  expect(await tunnel(others, `127.0.0.1:${port}`)).toBe('');
});

test('what is more than may come is cut off, and nothing comes after it', async () => {
  const port = await site('x'.repeat(400_000));
  const hosts = new Set(['127.0.0.1']);
  const small = await proxy({ hosts, most: 300_000 });
  await expect(ask(small, `http://127.0.0.1:${port}/`)).rejects.toThrow();
  expect(small.isFull()).toBe(true);
  expect((await ask(small, `http://127.0.0.1:${port}/`)).status).toBe(502);
});

test('what is not http, or no request of a proxy, is refused', async () => {
  const open = await proxy({ hosts: new Set(['localhost']) });
  for (const path of ['ftp://localhost/', 'file:///etc/passwd', '/etc/passwd'])
    expect((await askPath(open, path)).status).toBe(502);
  for (const target of ['localhost', 'localhost:0', 'localhost:99999', '::1:80', ':80'])
    expect(await tunnel(open, target)).toMatch(/^HTTP\/1.1 (502|400)/);
});

const askPath = (through: Proxy, path: string): Promise<{ status: number }> =>
  new Promise((resolve, reject) => {
    request({ host: '127.0.0.1', port: through.port, path, agent: false }, (answer) => {
      answer.resume();
      resolve({ status: answer.statusCode ?? 0 });
    })
      .on('error', reject)
      .end();
  });

test('a name that leads nowhere, or to nobody, is said as what it is', async () => {
  const reach = { hosts: new Set<string>(), doors: [] };
  await expect(addressFor('nowhere.invalid', 80, reach)).rejects.toMatchObject({
    why: 'unknown-host',
  });
  await expect(addressFor('localhost', 80, reach)).rejects.toMatchObject({ why: 'private' });
  await expect(addressFor('LocalHost.', 80, { ...reach, hosts: new Set(['localhost']) }))
    .resolves //
    .toMatch(/^(127\.0\.0\.1|::1)$/);
});
