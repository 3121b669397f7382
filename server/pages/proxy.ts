import {
  createServer,
  request as httpRequest,
  type IncomingMessage,
  type ServerResponse,
} from 'node:http';
import { connect, type Socket } from 'node:net';
import type { Duplex } from 'node:stream';
import { peerOf } from '@/bin/lib/peer.mjs';
import { addressFor, Refused, type Reach, type Refusal } from './reach';

/** Who hears nothing for so long is not waited for, ms. */
const SILENCE = 20_000;
const CONNECTIONS = 300;

export interface ProxyWish extends Reach {
  /** The user whose connections are served: nobody else on this computer goes through it. */
  uid: number;
  /** Of everything that comes through it, no more than this, bytes. */
  most: number;
}

export interface Proxy {
  port: number;
  /** Why a host was not reached; undefined where it was. */
  refused: (host: string, port: number) => Refusal | 'silent' | undefined;
  /** Bytes that came through it. */
  bytes: () => number;
  /** More was coming than may. */
  isFull: () => boolean;
  close: () => void;
}

const keyOf = (host: string, port: number): string => `${host.toLowerCase()}:${port}`;

/** “host:port” of a CONNECT, also with an address of IPv6 in brackets. */
function targetOf(authority: string): { host: string; port: number } | null {
  const [, bracketed, plain, port] = /^(?:\[([^\]]+)\]|([^:]+)):(\d{1,5})$/.exec(authority) ?? [];
  const host = bracketed ?? plain;
  return host && Number(port) > 0 && Number(port) < 65_536 ? { host, port: Number(port) } : null;
}

/**
 * The only way out for a browser that takes pages: whatever it asks for, redirects and what pages do by
 * themselves included, is connected to here, at the very address that was checked.
 */
export async function openProxy({ uid, most, ...reach }: ProxyWish): Promise<Proxy> {
  const refusals = new Map<string, Refusal | 'silent'>();
  const answering = new Set<string>();
  const open = new Set<Duplex>();
  let bytes = 0;
  let listening = 0;

  const held = <S extends Duplex>(socket: S): S => {
    open.add(socket);
    socket.once('close', () => open.delete(socket));
    return socket;
  };
  const counted = (piece: Buffer): void => {
    bytes += piece.length;
    if (bytes > most) for (const socket of open) socket.destroy();
  };
  /** @throws Refused */
  const reached = async (host: string, port: number): Promise<string> => {
    if (bytes > most) throw new Refused('never');
    try {
      return await addressFor(host, port, { ...reach, doors: [...reach.doors, listening] });
    } catch (error) {
      if (error instanceof Refused) refusals.set(keyOf(host, port), error.why);
      throw error;
    }
  };

  async function plain(asked: IncomingMessage, answer: ServerResponse): Promise<void> {
    const url = URL.parse(asked.url ?? '');
    if (url?.protocol !== 'http:') return refuse(answer);
    const host = url.hostname.replace(/^\[|\]$/g, '');
    const port = Number(url.port) || 80;
    const address = await reached(host, port).catch(() => null);
    if (address === null) return refuse(answer);
    const headers = Object.fromEntries(
      Object.entries(asked.headers).filter(([name]) => !name.startsWith('proxy-')),
    );
    const onward = httpRequest(
      {
        ...{ host: address, port, method: asked.method, path: url.pathname + url.search },
        ...{ headers: { ...headers, host: url.host }, agent: false },
      },
      (from) => {
        answering.add(keyOf(host, port));
        answer.writeHead(from.statusCode ?? 502, from.headers);
        from.on('data', counted);
        from.on('error', () => answer.destroy());
        from.pipe(answer);
      },
    );
    onward.once('socket', held);
    onward.setTimeout(SILENCE, () => onward.destroy());
    onward.on('error', () => {
      // What the browser no longer wanted says nothing of the host, nor does a part after a page.
      if (!answer.destroyed && !answering.has(keyOf(host, port)))
        refusals.set(keyOf(host, port), 'silent');
      refuse(answer);
    });
    answer.once('close', () => onward.destroy());
    asked.pipe(onward);
  }

  async function tunnel(asked: IncomingMessage, socket: Duplex): Promise<void> {
    held(socket).on('error', () => socket.destroy());
    const target = targetOf(asked.url ?? '');
    const address = target && (await reached(target.host, target.port).catch(() => null));
    if (!target || !address || socket.destroyed) {
      socket.end('HTTP/1.1 502 Bad Gateway\r\n\r\n');
      return;
    }
    const onward = held(connect({ host: address, port: target.port }));
    const silent = () => {
      refusals.set(keyOf(target.host, target.port), 'silent');
      if (!socket.destroyed) socket.end('HTTP/1.1 502 Bad Gateway\r\n\r\n');
      onward.destroy();
    };
    onward.setTimeout(SILENCE, silent);
    onward.once('error', silent);
    onward.once('connect', () => {
      onward.removeListener('error', silent);
      onward.on('error', () => socket.destroy());
      onward.on('data', counted);
      socket.write('HTTP/1.1 200 Connection established\r\n\r\n');
      onward.pipe(socket);
      socket.pipe(onward);
    });
    socket.once('close', () => onward.destroy());
    onward.once('close', () => socket.destroy());
  }

  const owners = new WeakMap<Duplex, Promise<boolean>>();
  const letIn = async (socket: Duplex, act: () => Promise<void>): Promise<void> => {
    if ((await owners.get(socket)) === true && !socket.destroyed) await act();
    else socket.destroy();
  };
  const server = createServer(
    (asked, answer) => void letIn(asked.socket, () => plain(asked, answer)),
  );
  server.on(
    'connect',
    (asked: IncomingMessage, socket: Duplex) => void letIn(socket, () => tunnel(asked, socket)),
  );
  server.maxConnections = CONNECTIONS;
  server.on('connection', (socket: Socket) => {
    owners.set(
      held(socket),
      peerOf(socket).then((owner) => owner === uid),
    );
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const address = server.address();
  if (typeof address === 'object' && address) listening = address.port;
  return {
    port: listening,
    refused: (host, at) => refusals.get(keyOf(host, at)),
    bytes: () => bytes,
    isFull: () => bytes > most,
    close: () => {
      server.close();
      server.closeAllConnections();
      for (const socket of open) socket.destroy();
    },
  };
}

function refuse(answer: ServerResponse): void {
  if (answer.headersSent) return void answer.destroy();
  answer.writeHead(502, { 'Content-Type': 'text/plain', Connection: 'close' }).end();
}
