import { execFileSync, spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { chmodSync, mkdirSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { connect } from 'node:net';
import { dirname, join, relative } from 'node:path';
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { z } from 'zod';
import { OwnApp } from './lib/ownApp';
import { busyPng } from '@/tests/lib/pictures';

/** Another user of the same computer gets nothing; the owner's own scripts work plainly. */

jest.setTimeout(120_000);

const data = join(process.env.REZZIK_DATA ?? '', 'owner');
let app: OwnApp;
let shot: string;
beforeAll(async () => {
  mkdirSync(data, { recursive: true });
  app = await OwnApp.start({ data, databaseUrl: process.env.DATABASE_URL ?? '' });
  shot = await app.addShot(await busyPng(60, 40, 3), 'Secret bed');
});
afterAll(async () => {
  await app.end();
  rmSync(data, { recursive: true });
});

const NOBODY = 65534;

/** What a program is started with to run as another user of this computer. */
function another(): string[] {
  const ways = [
    ['setpriv', `--reuid=${NOBODY}`, `--regid=${NOBODY}`, '--clear-groups'],
    ['unshare', '--user', '--map-auto', '--setuid=1', '--setgid=1'],
  ];
  const way = ways.find(([program = '', ...args]) => {
    const asked = spawnSync(program, [...args, 'id', '-u'], { encoding: 'utf8' });
    return asked.status === 0 && Number(asked.stdout) !== process.getuid?.();
  });
  if (!way) throw new Error('No second user can be had. As root: apt-get install uidmap');
  return way;
}

interface Answer {
  status: number;
  body: string;
}

/** Asks by curl, as another user or as the owner. */
function curl(who: readonly string[], ...args: string[]): Answer {
  const [program = '', ...rest] = [...who, 'curl', '-s', '-m', '20', '-w', '\n%{http_code}'];
  const printed = execFileSync(program, [...rest, ...args], { encoding: 'utf8', cwd: '/' });
  const lines = printed.split('\n');
  return { status: Number(lines.pop()), body: lines.join('\n') };
}

const REFUSED = 'Rezzik answers only to the user who started it.';

/** Every page and route of the app, with the names in their addresses filled in. */
function addresses(): string[] {
  const files = readdirSync('app', { recursive: true, encoding: 'utf8' }).filter((file) =>
    /(^|\/)(route|page)\.tsx?$/.test(file),
  );
  const filled: Record<string, string> = { id: shot, token: 'x'.repeat(22), size: '192' };
  return files.map((file) => {
    const path = relative('app', join('app', file))
      .replace(/\/?(route|page)\.tsx?$/, '')
      .replace(/\([a-z]+\)\/?/g, '')
      .replace(/\[(?:\.\.\.)?([a-z]+)\]/g, (_, name: string) => filled[name] ?? 'some');
    return `/${path}`;
  });
}

describe('another user of this computer', () => {
  test('gets 403 and nothing else from every route and page, over IPv4 and IPv6', () => {
    const all = [...addresses(), '/fonts/kalam-latin-400-normal.ttf', '/_next/static/x.js'];
    expect(all.length).toBeGreaterThan(50);
    expect(all).toContain(`/api/shots/${shot}/picture`);
    expect(all).toContain('/api/display/events');
    const other = another();
    for (const host of ['127.0.0.1', '[::1]', 'localhost']) {
      // One program for all of them: each address on a connection of its own.
      const args = all.flatMap((path, i) => [
        ...(i
          ? ['--next', '-s', '-m', '20', '-w', '\n%{http_code}\n']
          : ['-w', '\n%{http_code}\n']),
        `http://${host}:${app.port}${path}`,
      ]);
      const [program = '', ...rest] = [...other, 'curl', '-s', '-m', '20'];
      const printed = execFileSync(program, [...rest, ...args], { encoding: 'utf8', cwd: '/' });
      const answers = printed.trim().split('\n');
      expect(answers).toHaveLength(all.length * 2);
      expect(new Set(answers)).toEqual(new Set([REFUSED, '403']));
    }
  });

  test('changes nothing', () => {
    const other = another();
    const json = ['-H', 'Content-Type: application/json'];
    for (const args of [
      ['-X', 'DELETE', `${app.url}/api/shots/${shot}`],
      ['-X', 'PATCH', ...json, '-d', '{"displayAllowed":true}', `${app.url}/api/settings`],
      ['-X', 'POST', ...json, '-d', '{}', `${app.url}/api/shots/${shot}/links`],
    ])
      expect(curl(other, ...args)).toEqual({ status: 403, body: REFUSED });
    expect(curl([], `${app.url}/api/settings`).body).toContain('"displayAllowed":false');
    expect(curl([], `${app.url}/api/shots/${shot}`).status).toBe(200);
  });

  test('cannot keep the owner out by holding connections open', async () => {
    const script = `
      const net = require('node:net');
      let open = 0;
      for (let i = 0; i < 300; i += 1) net.connect(${app.port}, '127.0.0.1').on('connect', () => {
        if (++open === 300) console.log('open');
      }).on('error', () => undefined);`;
    const [program = '', ...rest] = [...another(), process.execPath, '-e', script];
    const holder = spawn(program, rest, { cwd: '/', stdio: ['ignore', 'pipe', 'ignore'] });
    await once(holder.stdout, 'data');
    expect(curl([], `${app.url}/api/health`).status).toBe(200);
    holder.kill('SIGKILL');
    await once(holder, 'exit');
  });

  test('sees shared links by the second door, and nothing else', async () => {
    const port = 45_391;
    const made = z
      .object({ path: z.string() })
      .parse((await app.post(`/api/shots/${shot}/links`, {})).body);
    const patch = ['-X', 'PATCH', '-H', 'Content-Type: application/json'];
    curl([], ...patch, '-d', `{"linkPort":${port}}`, `${app.url}/api/settings`);
    const other = another();
    const door = `http://127.0.0.1:${port}`;
    expect(curl(other, `${door}${made.path}`).status).toBe(200);
    expect(curl(other, `${door}/api/shots`).status).toBe(404);
    curl([], ...patch, '-d', '{"linkPort":null}', `${app.url}/api/settings`);
  });
});

/** What lies below a folder and is open to others, with its permissions. */
function openTo(folder: string): string[] {
  return readdirSync(folder, { recursive: true, encoding: 'utf8' }).flatMap((name) => {
    const { mode } = statSync(join(folder, name));
    return mode & 0o077 ? [`${name} ${(mode & 0o777).toString(8)}`] : [];
  });
}

describe('what is written', () => {
  test('below the data folder is the owner’s alone; kept copies are as open as their folder', async () => {
    await app.post(`/api/shots/${shot}/mail`, { drop: true });
    await app.post('/api/remotes/practice', {});
    const { remotes } = z
      .object({ remotes: z.array(z.object({ id: z.string() })) })
      .parse(JSON.parse(curl([], `${app.url}/api/remotes`).body));
    await app.post(`/api/shots/${shot}/sendings`, { remoteId: remotes[0]?.id });
    expect(readdirSync(data)).toEqual(
      expect.arrayContaining(['mail-drop', 'practice-remote', 'remote-key']),
    );
    rmSync(join(data, 'kept'), { recursive: true });
    expect(openTo(data)).toEqual([]);
    for (const [mode, file, folder] of [
      [0o700, 0o600, 0o700],
      [0o755, 0o644, 0o755],
      [0o770, 0o660, 0o770],
      [0o777, 0o664, 0o775],
    ] as const) {
      const path = join(data, 'kept', `as-${mode.toString(8)}`);
      mkdirSync(path, { recursive: true });
      chmodSync(path, mode);
      const { id } = await app.addFolder({ name: 'As', path, pattern: 'deep/{title}' });
      const copy = await app.keep(shot, { folderId: id });
      const modes = [copy.path, dirname(copy.path)].map((one) => statSync(one).mode & 0o777);
      expect([mode, ...modes]).toEqual([mode, file, folder]);
    }
  });

  test('by an older Rezzik is closed at the next start', () => {
    const old = join(process.env.REZZIK_DATA ?? '', 'old');
    mkdirSync(join(old, 'mail-drop'), { recursive: true });
    mkdirSync(join(old, 'postgres'));
    for (const name of ['mail-drop/a.eml', 'programs.json']) writeFileSync(join(old, name), 'x');
    for (const name of ['', 'mail-drop', 'postgres']) chmodSync(join(old, name), 0o755);
    for (const name of ['mail-drop/a.eml', 'programs.json']) chmodSync(join(old, name), 0o664);
    const script = `import('./bin/lib/private.mjs').then((m) => m.makePrivate(${JSON.stringify(old)}))`;
    execFileSync(process.execPath, ['-e', script]);
    expect(openTo(old)).toEqual(['postgres 755']);
    expect(statSync(old).mode & 0o777).toBe(0o700);
  });
});

describe('the owner', () => {
  test('reaches everything by a plain script, over IPv4 and IPv6', () => {
    for (const host of ['127.0.0.1', '[::1]', 'localhost']) {
      const { status, body } = curl([], `http://${host}:${app.port}/api/shots`);
      expect([host, status]).toEqual([host, 200]);
      expect(body).toContain('Secret bed');
    }
  });

  test('gets an answer to what cannot be served, and the connection is closed', async () => {
    const ask = async (head: string): Promise<string> => {
      const socket = connect(app.port, '127.0.0.1');
      let text = '';
      socket.on('data', (part: Buffer) => (text += part.toString()));
      socket.write(`${head}\r\nHost: 127.0.0.1:${app.port}\r\n\r\n`);
      await once(socket, 'close');
      return text.split('\r\n')[0] ?? '';
    };
    expect(await ask('TRACE / HTTP/1.1')).toContain('405');
    expect(await ask('CONNECT x:1 HTTP/1.1')).toContain('405');
    expect(await ask('GET /%E0%A4%A HTTP/1.1')).toContain('400');
    expect(await ask('nonsense')).toContain('400');
    const upgrade = 'Connection: Upgrade\r\nUpgrade: websocket\r\nSec-WebSocket-Version: 13';
    expect(await ask(`GET / HTTP/1.1\r\n${upgrade}\r\nSec-WebSocket-Key: eA==`)).toContain('400');
  });
});
