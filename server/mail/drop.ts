import { mkdir, readdir, readFile, rm, stat } from 'node:fs/promises';
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import type { Dropped } from '@/core/contracts/mail';
import { env } from '../base/env';
import { notFound } from '../base/fault';
import { writeWhole } from '../keep/write';

/** Messages that went nowhere: a folder in place of a mail service, to try the whole way. */
const folder = (): string => join(env().dataDir, 'mail-drop');

export async function dropMessage(
  shotId: string,
  message: Buffer,
  now = new Date(),
): Promise<string> {
  await mkdir(folder(), { recursive: true, mode: 0o700 });
  const name = `${now.toISOString().replace(/[:.]/g, '-')}-${shotId}-${randomUUID().slice(0, 8)}.eml`;
  await writeWhole(join(folder(), name), message);
  return name;
}

const header = (message: string, name: string): string =>
  new RegExp(`^${name}: (.*(?:\\r?\\n[ \\t].*)*)`, 'im')
    .exec(message)?.[1]
    ?.replace(/\s+/g, ' ')
    .trim() ?? '';

/** The messages in the drop, newest first. */
export async function listDropped(): Promise<Dropped[]> {
  const names = await readdir(folder()).catch(() => []);
  const all = await Promise.all(
    names
      .filter((name) => NAME.test(name))
      .map(async (name) => {
        const path = join(folder(), name);
        const [head, facts] = await Promise.all([readFile(path, 'latin1'), stat(path)]);
        const top = head.slice(0, 4000);
        return {
          name,
          subject: header(top, 'Subject'),
          to: header(top, 'To'),
          at: facts.mtime.toISOString(),
          bytes: facts.size,
        };
      }),
  );
  return all.sort((a, b) => b.at.localeCompare(a.at));
}

const NAME = /^[0-9A-Za-z-]+\.eml$/;

/** @throws Fault 404 */
export async function droppedMessage(name: string): Promise<Buffer> {
  if (!NAME.test(name)) throw notFound('message');
  return readFile(join(folder(), name)).catch(() => {
    throw notFound('message');
  });
}

/** Erases the messages that hold a picture of a shot. */
export async function dropMessagesOf(shotId: string): Promise<void> {
  const names = await readdir(folder()).catch(() => []);
  const its = names.filter((name) => NAME.test(name) && name.includes(`-${shotId}-`));
  await Promise.all(its.map((name) => rm(join(folder(), name), { force: true })));
}
