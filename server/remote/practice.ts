import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { createReadStream } from 'node:fs';
import { mkdir, open, readdir, rename, rm, stat } from 'node:fs/promises';
import { basename, dirname, join, normalize } from 'node:path';
import { errorCode } from '../base/errorCode';
import { xmlText } from '@/core/keep/xmp';

/** How the stand-in is set up. */
export interface Practice {
  folder: string;
  username: string;
  password: string;
  /** Refuses files above this many bytes as a full disk would; for trying that out. */
  mostBytes?: number;
  /** What it does not heed, as some servers do not; for trying that out. */
  ignores?: readonly ('if-none-match' | 'overwrite')[];
}

/**
 * A small WebDAV server (RFC 4918: OPTIONS, PROPFIND, MKCOL, GET, HEAD, PUT, MOVE, DELETE) on loopback, in
 * place of a remote folder, so that sending can be tried whole.
 */
export async function startPractice(
  practice: Practice,
  port = 0,
): Promise<{ server: Server; port: number }> {
  await mkdir(practice.folder, { recursive: true, mode: 0o700 });
  const server = createServer((request, response) => {
    answer(practice, request, response).catch(() => end(response, 500));
  });
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', () => resolve());
  });
  const address = server.address();
  return { server, port: typeof address === 'object' && address ? address.port : port };
}

function end(response: ServerResponse, status: number, body = '', headers = {}): void {
  response.writeHead(status, headers);
  response.end(body);
}

async function answer(
  practice: Practice,
  request: IncomingMessage,
  response: ServerResponse,
): Promise<void> {
  const wanted = `Basic ${Buffer.from(`${practice.username}:${practice.password}`).toString('base64')}`;
  if (request.headers.authorization !== wanted) {
    end(response, 401, '', { 'WWW-Authenticate': 'Basic realm="Practice"' });
    return;
  }
  const way = normalize(decodeURIComponent((request.url ?? '/').split('?')[0] ?? '/'));
  if (way.split('/').includes('..')) {
    end(response, 403);
    return;
  }
  const path = join(practice.folder, way);
  const act = methods[request.method ?? ''];
  if (act) await act({ practice, request, response, path, way });
  else end(response, 405);
}

interface Call {
  practice: Practice;
  request: IncomingMessage;
  response: ServerResponse;
  path: string;
  way: string;
}

const methods: Record<string, (call: Call) => Promise<void>> = {
  OPTIONS: ({ response }) => Promise.resolve(end(response, 204, '', { DAV: '1' })),
  PROPFIND: propfind,
  HEAD: async ({ path, response }) => {
    const there = await stat(path).catch(() => null);
    end(response, there ? 200 : 404);
  },
  GET: async ({ path, response }) => {
    const there = await stat(path).catch(() => null);
    if (!there?.isFile()) {
      end(response, 404);
      return;
    }
    response.writeHead(200, { 'Content-Length': there.size });
    createReadStream(path).pipe(response);
  },
  MKCOL: async ({ path, response }) => {
    try {
      await mkdir(path);
      end(response, 201);
    } catch {
      end(response, (await stat(dirname(path)).catch(() => null)) ? 405 : 409);
    }
  },
  PUT: put,
  MOVE: move,
  DELETE: async ({ path, response }) => {
    await rm(path, { recursive: true, force: true });
    end(response, 204);
  },
};

async function put({ practice, request, response, path }: Call): Promise<void> {
  const parts: Buffer[] = [];
  for await (const part of request) parts.push(part as Buffer);
  const bytes = Buffer.concat(parts);
  if (practice.mostBytes !== undefined && bytes.length > practice.mostBytes) {
    end(response, 507);
    return;
  }
  const heeds = !practice.ignores?.includes('if-none-match');
  const fresh = heeds && request.headers['if-none-match'] === '*';
  try {
    const file = await open(path, fresh ? 'wx' : 'w');
    await file.writeFile(bytes);
    await file.close();
    end(response, 201);
  } catch (error) {
    end(response, errorCode(error) === 'EEXIST' ? 412 : 409);
  }
}

async function move({ practice, request, response, path }: Call): Promise<void> {
  const to = new URL(String(request.headers.destination), 'http://x');
  const target = join(practice.folder, normalize(decodeURIComponent(to.pathname)));
  const heeds = !practice.ignores?.includes('overwrite');
  if (heeds && request.headers.overwrite === 'F' && (await stat(target).catch(() => null))) {
    end(response, 412);
    return;
  }
  await rename(path, target).then(
    () => end(response, 201),
    () => end(response, 409),
  );
}

async function propfind({ path, way, response, request }: Call): Promise<void> {
  const there = await stat(path).catch(() => null);
  if (!there) {
    end(response, 404);
    return;
  }
  const deep = there.isDirectory() && request.headers.depth !== '0';
  const names = deep ? await readdir(path) : [];
  const all = [way, ...names.map((name) => join(way, name))];
  const entries = await Promise.all(
    all.map(async (one, i) => {
      const facts = i === 0 ? there : await stat(join(path, basename(one)));
      const kind = facts.isDirectory() ? '<D:collection/>' : '';
      const href = one.split('/').map(encodeURIComponent).join('/');
      return (
        `<D:response><D:href>${xmlText(href)}</D:href><D:propstat><D:prop>` +
        `<D:displayname>${xmlText(basename(one))}</D:displayname><D:resourcetype>${kind}</D:resourcetype>` +
        `<D:getcontentlength>${facts.size}</D:getcontentlength>` +
        `<D:getlastmodified>${facts.mtime.toUTCString()}</D:getlastmodified>` +
        '</D:prop><D:status>HTTP/1.1 200 OK</D:status></D:propstat></D:response>'
      );
    }),
  );
  end(
    response,
    207,
    `<?xml version="1.0" encoding="utf-8"?><D:multistatus xmlns:D="DAV:">${entries.join('')}</D:multistatus>`,
    { 'Content-Type': 'application/xml; charset=utf-8' },
  );
}
