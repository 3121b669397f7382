import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import sharp from 'sharp';
import { env } from '../../base/env';
import { shared } from '../../base/shared';
import { bedPicture, gardenPage, seedsPage } from './garden';

type Answer = [type: string, body: string | Buffer];

/** A label for a bed, to be written on: a picture that is no page. */
function label(): Promise<Buffer> {
  const plain = (width: number, height: number, background: string) => ({
    create: { width, height, channels: 3 as const, background },
  });
  const line = (top: number) => ({ input: plain(360, 2, '#5E8C79'), left: 30, top });
  return sharp(plain(420, 180, '#EFE6D2'))
    .composite([{ input: plain(420, 36, '#2F6B4F'), left: 0, top: 0 }, line(90), line(140)])
    .png()
    .toBuffer();
}

/** What is at a path of the practice web site. */
async function answerTo(path: string): Promise<Answer | null> {
  if (path === '/') return ['text/html', gardenPage()];
  if (path === '/seeds') return ['text/html', seedsPage()];
  if (path === '/label.png') {
    return ['image/png', await label()];
  }
  const [, n] = /^\/bed\/(\d{1,2})\.svg$/.exec(path) ?? [];
  return n === undefined ? null : ['image/svg+xml', bedPicture(Number(n))];
}

async function answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
  const found = await answerTo((request.url ?? '/').split('?')[0] ?? '/');
  if (!found) return void response.writeHead(404).end('There is no such page in the garden.');
  response.writeHead(200, { 'Content-Type': found[0], 'X-Content-Type-Options': 'nosniff' });
  response.end(request.method === 'HEAD' ? undefined : found[1]);
}

const held = shared<{ site?: Promise<number> }>('practiceSite', () => ({}));

/** A port of its own, the same after a restart where nobody else has it. */
const listen = (wanted: number): Promise<number> =>
  new Promise((resolve, reject) => {
    const server = createServer((request, response) => {
      answer(request, response).catch(() => response.destroy());
    });
    server.once('error', reject);
    server.listen(wanted, '127.0.0.1', () => {
      const address = server.address();
      resolve(typeof address === 'object' && address ? address.port : 0);
    });
    server.unref();
  });
const BESIDE = 7;

/** A small web site of the made-up garden on this computer, to try pages on; opened when it is first asked for. */
export async function practiceSite(): Promise<string> {
  held.site ??= listen(env().port + BESIDE).catch(() => listen(0));
  return `http://127.0.0.1:${await held.site}/`;
}

/** “host:port” of it, which nobody need be asked about; null while it is not open. */
export const practiceHost = async (): Promise<string | null> =>
  held.site ? `127.0.0.1:${await held.site}` : null;
