import { createClient, type WebDAVClient } from 'webdav';
import { numbered } from '@/core/naming/safeName';
import type { RemoteRow } from './remotes';

const MOST_NAMES = 1_000;

/** What stands in the way at the other end, in plain words. */
export class RemoteProblem extends Error {}

function inWords(error: unknown): RemoteProblem {
  const status = error && typeof error === 'object' && 'status' in error ? Number(error.status) : 0;
  const words: Record<number, string> = {
    401: 'The remote folder did not accept the name or the password.',
    403: 'The remote folder does not let this name write there.',
    404: 'The remote folder is not there.',
    409: 'A folder on the way is missing at the other end.',
    413: 'The remote folder does not take files of this size.',
    507: 'The remote folder is full.',
  };
  const known = words[status];
  if (known) return new RemoteProblem(known);
  if (status) return new RemoteProblem(`The remote folder answered ${status}.`);
  return new RemoteProblem('The other machine does not answer.');
}

async function makeFolders(client: WebDAVClient, parts: readonly string[]): Promise<void> {
  let path = '';
  for (const part of parts) {
    path += `/${part}`;
    if (!(await client.exists(path))) await client.createDirectory(path);
  }
}

/**
 * Puts a file into a remote folder under a name that is free there (WebDAV, RFC 4918): nothing is
 * overwritten, a taken name gets the next number.
 * @param name with its subfolders
 * @returns the name it got
 * @throws RemoteProblem
 */
export async function sendFile(
  remote: Pick<RemoteRow, 'url' | 'username' | 'password'>,
  name: string,
  bytes: Uint8Array,
): Promise<string> {
  const { url, username, password } = remote;
  const client = createClient(url, username ? { username, password } : {});
  const parts = name.split('/');
  const file = parts.pop() ?? name;
  const [, stem = file, extension = ''] = /^(.*?)(\.[^.]*)?$/.exec(file) ?? [];
  try {
    await makeFolders(client, parts);
    for (let attempt = 1; attempt <= MOST_NAMES; attempt += 1) {
      const free = [...parts, `${numbered(stem, attempt)}${extension}`].join('/');
      // The server itself refuses a taken name (If-None-Match), so that two never meet.
      const done = await client.putFileContents(`/${free}`, Buffer.from(bytes), {
        overwrite: false,
      });
      if (done) return free;
    }
  } catch (error) {
    throw error instanceof RemoteProblem ? error : inWords(error);
  }
  throw new RemoteProblem('Every name is taken in the remote folder.');
}
