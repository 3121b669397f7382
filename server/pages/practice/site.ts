import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import sharp from 'sharp';
import { shared } from '../../base/shared';
import { bedPicture, gardenPage, seedsPage } from './garden';

type Answer = [type: string, body: string | Buffer];

/** What is at a path of the practice web site. */
async function answerTo(path: string): Promise<Answer | null> {
  if (path === '/') return ['text/html', gardenPage()];
  if (path === '/seeds') return ['text/html', seedsPage()];
  if (path === '/label.png') {
    return [
      'image/png',
      await sharp(Buffer.from(bedPicture(4)))
        .png()
        .toBuffer(),
    ];
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

const listen = (): Promise<number> =>
  new Promise((resolve, reject) => {
    const server = createServer((request, response) => {
      answer(request, response).catch(() => response.destroy());
    });
    server.once('error', reject);
    server.listen(0, '127.0.0.1', () => {
      const address = server.address();
      resolve(typeof address === 'object' && address ? address.port : 0);
    });
    server.unref();
  });

/** A small web site of the made-up garden on this computer, to try pages on; opened when it is first asked for. */
export async function practiceSite(): Promise<string> {
  held.site ??= listen();
  return `http://127.0.0.1:${await held.site}/`;
}
