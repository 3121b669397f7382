import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import { remoteInputSchema, type Remote } from '@/core/contracts/remote';
import { sql } from '../db/sql';
import { env } from '../base/env';
import { startPractice } from './practice';
import { addRemote, listRemotes } from './remotes';
import { unseal } from './sealed';
import { shared } from '../base/shared';

const held = shared<{ practice?: Promise<{ port: number }> }>('practice', () => ({}));

const folder = (): string => join(env().dataDir, 'practice-remote');

/** The stand-in as a remote folder of its own, made and started when it is first asked for. */
export async function practiceRemote(): Promise<Remote> {
  const known = (await listRemotes()).find((remote) => remote.practice);
  if (known) {
    await resumePractice();
    return known;
  }
  const password = randomBytes(12).toString('base64url');
  held.practice ??= startPractice({ folder: folder(), username: 'wren', password });
  const { port } = await held.practice;
  const input = remoteInputSchema.parse({
    name: 'Practice remote folder',
    url: `http://127.0.0.1:${port}/`,
    username: 'wren',
    password,
    pattern: '{date:yyyy}/{title}',
  });
  return addRemote(input, true);
}

/** Starts the stand-in again after a restart; it gets a new port. */
export async function resumePractice(): Promise<void> {
  if (held.practice) return;
  const [row] = await sql()<
    { id: string; username: string; password: string }[]
  >`select id, username, password from remotes where practice`;
  if (!row) return;
  const { username } = row;
  const password = await unseal(row.password);
  held.practice = startPractice({ folder: folder(), username, password });
  const { port } = await held.practice;
  await sql()`update remotes set url = ${`http://127.0.0.1:${port}/`} where id = ${row.id}`;
}
