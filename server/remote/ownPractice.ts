import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import { remoteInputSchema, type Remote } from '@/core/contracts/remote';
import { sql } from '../db/sql';
import { env } from '../base/env';
import { startPractice, type Practice } from './practice';
import { addRemote, listRemotes } from './remotes';
import { unseal } from './sealed';
import { shared } from '../base/shared';

interface Running {
  /** What it asks for is what stands here. */
  practice: Practice;
  started: Promise<{ port: number }>;
}

const held = shared<{ running?: Running }>('practice', () => ({}));

const folder = (): string => join(env().dataDir, 'practice-remote');

function begun(username: string, password: string): Running {
  const practice: Practice = { folder: folder(), username, password };
  const started = startPractice(practice);
  // It lives as long as what it stands beside.
  started.then(({ server }) => server.unref()).catch(() => undefined);
  return { practice, started };
}

/** The stand-in as a remote folder of its own, made and started when it is first asked for. */
export async function practiceRemote(): Promise<Remote> {
  const known = (await listRemotes()).find((remote) => remote.practice);
  if (known) {
    await resumePractice();
    return known;
  }
  // One that was removed and is made again finds it running.
  held.running ??= begun('wren', randomBytes(12).toString('base64url'));
  const { practice, started } = held.running;
  const { port } = await started;
  const input = remoteInputSchema.parse({
    name: 'Practice remote folder',
    url: `http://127.0.0.1:${port}/`,
    username: practice.username,
    password: practice.password,
    pattern: '{date:yyyy}/{title}',
  });
  return addRemote(input, true);
}

/** Starts the stand-in again after a restart; it gets a new port. */
export async function resumePractice(): Promise<void> {
  if (held.running) return;
  const [row] = await sql()<
    { id: string; username: string; password: string }[]
  >`select id, username, password from remotes where practice`;
  if (!row) return;
  held.running = begun(row.username, await unseal(row.password));
  const { port } = await held.running.started;
  await sql()`update remotes set url = ${`http://127.0.0.1:${port}/`} where id = ${row.id}`;
}
