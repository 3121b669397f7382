import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { once } from 'node:events';
import { mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { createServer, type RequestListener, type Server } from 'node:http';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { remoteInputSchema } from '@/core/contracts/remote';
import { sql } from '../db/sql';
import { env } from '../base/env';
import { claimDue } from '../jobs/queue';
import { stopJob, workDue } from '../jobs/run';
import { practiceRemote } from '../remote/ownPractice';
import { startPractice } from '../remote/practice';
import { addRemote, changeRemote, listRemotes, removeRemote } from '../remote/remotes';
import { seal, sealOld, unseal } from '../remote/sealed';
import { sendFile, tryOut } from '../remote/send';
import { listSendings, sendAgain, sendTo, stopSending } from '../remote/sendings';
import { begin, finish, storeTelling, testFolder } from './setup';

/** Remote folders that are silent, lie, lead elsewhere or overwrite (RFC 4918, RFC 9110). */

jest.setTimeout(90_000);

let shot: string;
const servers: Server[] = [];
beforeAll(async () => {
  await begin();
  shot = await storeTelling();
});
afterAll(async () => {
  for (const server of servers) {
    server.closeAllConnections();
    server.close();
  }
  await finish();
});

async function serve(answer: RequestListener): Promise<string> {
  const server = createServer(answer).listen(0, '127.0.0.1');
  servers.push(server);
  await once(server, 'listening');
  const address = server.address();
  if (address === null || typeof address === 'string') throw new Error('no port');
  return `http://127.0.0.1:${address.port}/`;
}

const never = new AbortController().signal;
const soon = { silence: 300, whole: 2_000 };
const bytes = Buffer.from('the picture');
const allowed = { readable: false, fingerprint: null };
const nobody = { username: '', password: '', ...allowed };

const send = (url: string, more: object = {}) => {
  const trying: string[] = [];
  const note = (name: string) => Promise.resolve(void trying.push(name));
  const plain = { name: 'a.png', bytes, guard: 'header' as const, trying: null, note };
  return sendFile({ url, ...nobody }, { ...plain, signal: never, patience: soon, ...more });
};

describe('a remote folder that is not as it should be', () => {
  test('points elsewhere: nothing goes there, with no password either', async () => {
    const asked: string[] = [];
    const elsewhere = await serve((request, response) => {
      asked.push(`${request.method ?? ''} ${request.headers.authorization ?? ''}`);
      response.writeHead(201).end();
    });
    for (const status of [301, 302, 307, 308]) {
      const url = await serve((request, response) => {
        request.resume();
        response.writeHead(status, { Location: elsewhere }).end();
      });
      await expect(send(url)).rejects.toThrow(`points to another address (${status})`);
    }
    expect(asked).toEqual([]);
  });

  test('is a page to log in to a network: that is said, and nothing is sent', async () => {
    const asked: string[] = [];
    const captive = (status: number) =>
      serve((request, response) => {
        asked.push(request.method ?? '');
        request.resume();
        response.writeHead(status, { 'Content-Type': 'text/html' }).end('<h1>Welcome</h1>');
      });
    await expect(send(await captive(200))).rejects.toThrow('A web page answers in place of');
    await expect(send(await captive(511))).rejects.toThrow('wants to be logged in to first');
    expect(new Set(asked)).toEqual(new Set(['PROPFIND']));
  });

  test('answers anything but 201 or 204: it is not stored', async () => {
    for (const status of [200, 202, 207]) {
      const url = await serve((request, response) => {
        request.resume();
        response.writeHead(status).end();
      });
      await expect(send(url)).rejects.toThrow(`answered ${status}`);
    }
  });

  test('never answers, or never ends its answer: given up in time', async () => {
    const silent = await serve((request) => void request.resume());
    await expect(send(silent)).rejects.toThrow('does not answer');
    const drip = await serve((request, response) => {
      request.resume();
      response.writeHead(200);
      const timer = setInterval(() => response.write('.'), 50);
      response.on('close', () => clearInterval(timer));
    });
    await expect(send(drip)).rejects.toThrow('does not answer');
  });

  test.each([
    'http://169.254.169.254/latest/',
    'http://[fe80::1]/',
    'http://[::ffff:169.254.169.254]/',
    'http://100.100.100.200/',
    'http://0.0.0.0/',
    'http://[fd00:ec2::254]/',
  ])('lies at %s: refused, in words, when it is set up and when it is used', async (url) => {
    await expect(send(url)).rejects.toThrow('one that Rezzik does not send to');
    const input = remoteInputSchema.parse({ name: 'Forbidden', url });
    await expect(addRemote(input)).rejects.toMatchObject({ status: 400 });
  });
});

describe('nothing is overwritten', () => {
  test.each([
    ['header', []],
    ['move', ['if-none-match']],
    ['none', ['if-none-match', 'overwrite']],
  ] as const)('where it heeds by %s', async (guard, ignores) => {
    const folder = testFolder(`guard-${guard}`);
    const { server, port } = await startPractice({
      ...{ folder, username: 'wren', password: 'fern', ignores },
    });
    servers.push(server);
    const to = { url: `http://127.0.0.1:${port}/`, username: 'wren', password: 'fern', ...allowed };
    expect(await tryOut(to, never)).toBe(guard);
    expect(readdirSync(folder)).toEqual([]);
    writeFileSync(join(folder, 'a.png'), 'theirs');
    const sent = await sendFile(to, {
      ...{ name: 'a.png', bytes, guard, trying: null, signal: never },
      note: () => Promise.resolve(),
    });
    expect(sent.name).toBe('a-2.png');
    expect(readFileSync(join(folder, 'a.png'), 'utf8')).toBe('theirs');
    expect(readdirSync(folder).sort()).toEqual(['a-2.png', 'a.png']);
  });

  test('what cannot be made safe is said when it is set up', async () => {
    const folder = testFolder('guard-said');
    const ignores = ['if-none-match', 'overwrite'] as const;
    const { server, port } = await startPractice({
      ...{ folder, username: 'wren', password: 'fern', ignores },
    });
    servers.push(server);
    const url = `http://127.0.0.1:${port}/`;
    const { caution } = await addRemote(
      remoteInputSchema.parse({ name: 'Careless', url, username: 'wren', password: 'fern' }),
    );
    expect(caution).toContain('may let a file be overwritten');
  });

  test('a lost answer makes no second file', async () => {
    const folder = testFolder('lost');
    mkdirSync(folder, { recursive: true });
    let lose = true;
    const { server, port } = await startPractice({ folder, username: 'wren', password: 'fern' });
    servers.push(server);
    // Hands everything on, but hangs up instead of answering the first file.
    const url = await serve((request, response) => {
      const parts: Buffer[] = [];
      request.on('data', (part: Buffer) => parts.push(part));
      request.on('end', () => {
        const { 'content-length': _, host: __, connection: ___, ...headers } = request.headers;
        const body = parts.length ? { body: Buffer.concat(parts) } : {};
        void fetch(`http://127.0.0.1:${port}${request.url ?? ''}`, {
          ...{ method: request.method ?? 'GET', headers: headers as Record<string, string> },
          ...body,
        }).then(async (answer) => {
          if (request.method === 'PUT' && !request.url?.includes('.part') && lose) {
            lose = false;
            request.socket.destroy();
            return;
          }
          const answered = Buffer.from(await answer.arrayBuffer());
          response.writeHead(answer.status, Object.fromEntries(answer.headers)).end(answered);
        });
      });
    });
    const input = { name: 'Lossy', url, username: 'wren', password: 'fern', pattern: '{title}' };
    const { id } = await addRemote(remoteInputSchema.parse(input));
    const first = await sendTo(shot, id);
    expect(first).toMatchObject({
      state: 'waiting',
      problem: 'The other machine does not answer.',
    });
    expect(readdirSync(folder)).toEqual(['Beds.png']);
    expect(await sendAgain(first.id)).toMatchObject({ state: 'sent', name: 'Beds.png' });
    expect(readdirSync(folder)).toEqual(['Beds.png']);
  });
});

describe('passwords', () => {
  const away = {
    name: 'Away',
    url: 'http://127.0.0.1:9/',
    username: 'wren',
    password: 'fern-4711',
  };

  test('are sealed in the database, with a key beside it that is its owner’s alone', async () => {
    const { id } = await addRemote(remoteInputSchema.parse(away));
    const [row] = await sql()<
      { password: string }[]
    >`select password from remotes where id = ${id}`;
    expect(row?.password).not.toContain('fern');
    expect(await unseal(row?.password ?? '')).toBe('fern-4711');
    expect(statSync(join(env().dataDir, 'remote-key')).mode & 0o777).toBe(0o600);
    await sql()`update remotes set password = 'as typed', sealed = false where id = ${id}`;
    await sealOld();
    const [old] = await sql()<
      { password: string }[]
    >`select password from remotes where id = ${id}`;
    expect(old?.password).not.toContain('typed');
    expect(await unseal(old?.password ?? '')).toBe('as typed');
  });

  test('are sealed all the same after the making of the key was cut off', async () => {
    const file = join(env().dataDir, 'remote-key');
    const whole = readFileSync(file);
    writeFileSync(file, '');
    expect(await unseal(await seal('moss'))).toBe('moss');
    expect(readFileSync(file)).toHaveLength(32);
    writeFileSync(file, whole);
  });

  test('go only to the address they were typed for', async () => {
    const { id } = await addRemote(remoteInputSchema.parse(away));
    const url = 'http://127.0.0.1:10/';
    await expect(changeRemote(id, { url })).rejects.toMatchObject({ code: 'password-again' });
    expect((await listRemotes()).find((remote) => remote.id === id)?.url).toBe(away.url);
    expect(await changeRemote(id, { name: 'Farther' })).toMatchObject({ name: 'Farther' });
    expect(await changeRemote(id, { url, password: 'moss' })).toMatchObject({ url });
  });
});

describe('what waits', () => {
  const silent = async () => {
    const url = await serve((request) => void request.resume());
    return (await addRemote(remoteInputSchema.parse({ name: 'Silent', url }))).id;
  };

  test('for a host that never answers holds up nothing, and is stopped in the middle', async () => {
    const id = await silent();
    const all = Promise.all(Array.from({ length: 9 }, () => sendTo(shot, id)));
    const bySilent = async () =>
      (await listSendings(shot)).filter(({ remoteName }) => remoteName === 'Silent');
    while ((await bySilent()).length < 9) await pause(20);
    // Longer than the transaction that is looked for.
    await pause(500);
    const begun = performance.now();
    for (let i = 0; i < 5; i += 1) await sql()`select count(*) from shots`;
    expect(performance.now() - begun).toBeLessThan(2_000);
    // No transaction is open while the other end is waited for.
    const [open] = await sql()<{ n: number }[]>`select count(*)::int as n from pg_stat_activity
      where state = 'idle in transaction' and datname = current_database()
        and xact_start < now() - interval '400 milliseconds'`;
    expect(open?.n).toBe(0);
    const waiting = await bySilent();
    await Promise.all(waiting.map((one) => stopSending(one.id)));
    for (const one of await all) expect(['waiting', 'stopped']).toContain(one.state);
    const states = await bySilent();
    expect(new Set(states.map(({ state }) => state))).toEqual(new Set(['stopped']));
    await workDue();
    expect((await listSendings(shot)).find((one) => one.id === waiting[0]?.id)?.tries).toBe(0);
  });

  test('is done once, however many Rezziks share the database', async () => {
    await sql()`delete from jobs`;
    await sql()`insert into jobs (id, kind)
      select gen_random_uuid(), 'trial' from generate_series(1, 200)`;
    const claimed: string[] = [];
    const worker = async () => {
      for (;;) {
        const job = await claimDue(['trial']);
        if (!job) return;
        claimed.push(job.id);
        await sql()`update jobs set state = 'done' where id = ${job.id} and lease = ${job.lease}`;
      }
    };
    await Promise.all(Array.from({ length: 8 }, worker));
    expect(claimed).toHaveLength(200);
    expect(new Set(claimed).size).toBe(200);
  });

  test('comes back when whoever took it is gone', async () => {
    await sql()`delete from jobs`;
    const [job] = await sql()<{ id: string }[]>`
      insert into jobs (id, kind) values (gen_random_uuid(), 'trial') returning id`;
    expect(await claimDue(['trial'])).toMatchObject({ id: job?.id });
    expect(await claimDue(['trial'])).toBeNull();
    await sql()`update jobs set leased_until = now() - interval '1 second'`;
    expect(await claimDue(['trial'])).toMatchObject({ id: job?.id });
    expect(await stopJob(job?.id ?? '')).toBe(true);
    await sql()`update jobs set leased_until = null`;
    expect(await claimDue(['trial'])).toBeNull();
  });
});

test('the practice remote that was removed and is made again takes what is sent', async () => {
  const first = await practiceRemote();
  expect(await sendTo(shot, first.id)).toMatchObject({ state: 'sent' });
  await removeRemote(first.id);
  const again = await practiceRemote();
  expect(again.id).not.toBe(first.id);
  expect(await sendTo(shot, again.id)).toMatchObject({ state: 'sent' });
});
