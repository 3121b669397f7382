import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto';
import { open, readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { sql } from '../db/sql';
import { env } from '../base/env';
import { errorCode } from '../base/errorCode';
import { RemoteProblem } from './problems';

/** AES-256-GCM (NIST SP 800-38D): a key of 32 bytes, 12 of a nonce, 16 of a tag. */
const KIND = 'aes-256-gcm';
const KEY = 32;
const NONCE = 12;
const TAG = 16;
/** Looks at a key that is not whole, before it is taken for cut off. */
const MOST_ATTEMPTS = 10;

/** The key lies beside the database, not in it: a copy of the database alone opens nothing. */
const keyFile = (): string => join(env().dataDir, 'remote-key');

async function key(attempt = 1): Promise<Buffer> {
  try {
    const file = await open(keyFile(), 'wx', 0o600);
    const fresh = randomBytes(KEY);
    await file.writeFile(fresh);
    await file.sync();
    await file.close();
    return fresh;
  } catch (error) {
    if (errorCode(error) !== 'EEXIST') throw error;
  }
  const known = await readFile(keyFile());
  if (known.length === KEY) return known;
  // Another process is writing it, or was cut off while it did: then nothing is sealed with it yet.
  if (attempt < MOST_ATTEMPTS) await pause(50);
  else await rm(keyFile(), { force: true });
  return key(attempt + 1);
}

/** A password as it is stored. */
export async function seal(password: string): Promise<string> {
  if (password === '') return '';
  const nonce = randomBytes(NONCE);
  const cipher = createCipheriv(KIND, await key(), nonce);
  const text = Buffer.concat([cipher.update(password, 'utf8'), cipher.final()]);
  return Buffer.concat([nonce, cipher.getAuthTag(), text]).toString('base64');
}

/** @throws RemoteProblem when it was sealed with a key that is gone */
export async function unseal(sealed: string): Promise<string> {
  if (sealed === '') return '';
  const bytes = Buffer.from(sealed, 'base64');
  try {
    const cipher = createDecipheriv(KIND, await key(), bytes.subarray(0, NONCE));
    cipher.setAuthTag(bytes.subarray(NONCE, NONCE + TAG));
    return cipher.update(bytes.subarray(NONCE + TAG), undefined, 'utf8') + cipher.final('utf8');
  } catch {
    throw new RemoteProblem(
      'The password of this remote folder cannot be read any more. Type it again in Setup.',
    );
  }
}

/** Seals what an older Rezzik stored as it was typed. */
export async function sealOld(): Promise<void> {
  const rows = await sql()<{ id: string; password: string }[]>`
    select id, password from remotes where not sealed`;
  for (const { id, password } of rows)
    await sql()`update remotes set password = ${await seal(password)}, sealed = true
      where id = ${id} and not sealed`;
}
