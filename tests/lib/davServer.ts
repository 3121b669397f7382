import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { createHash } from 'node:crypto';
import { once } from 'node:events';
import {
  chmodSync,
  chownSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { freePort } from './freePort';

/** As bin/lib/unpacked.mjs has it. */
const NGINX = join(process.cwd(), 'node_modules', '.cache', 'unpacked', 'nginx', 'usr/sbin/nginx');

/** Who may enter, with which password. */
export const wren = { username: 'wren', password: 'fern-4711' };
const REALM = 'Glasshouse';

interface Wish {
  login: 'basic' | 'digest';
  tls?: boolean;
  /** Larger files are refused, bytes. */
  most?: number;
}

const hash = (kind: string, text: string, as: 'hex' | 'base64') =>
  createHash(kind).update(text).digest(as);

/** WebDAV servers of other makers, from Debian's packages, on loopback in a folder of their own. */
export class DavServer {
  private child: ChildProcess | null = null;

  private constructor(
    private readonly kind: 'apache' | 'nginx',
    /** Where all of it lies. */
    readonly own: string,
    readonly port: number,
    private readonly tls: boolean,
  ) {}

  static async start(kind: 'apache' | 'nginx', wish: Wish): Promise<DavServer> {
    const own = mkdtempSync(join(tmpdir(), `rezzik-${kind}-`));
    const server = new DavServer(kind, own, await freePort(), wish.tls ?? false);
    for (const name of ['kept', 'temp']) mkdirSync(join(own, name));
    const { username, password } = wren;
    writeFileSync(join(own, 'basic'), `${username}:{SHA}${hash('sha1', password, 'base64')}\n`);
    const secret = hash('md5', `${username}:${REALM}:${password}`, 'hex');
    writeFileSync(join(own, 'digest'), `${username}:${REALM}:${secret}\n`);
    if (wish.tls) {
      const key = ['-newkey', 'rsa:2048', '-nodes', '-keyout', join(own, 'key.pem')];
      const name = ['-subj', '/CN=glasshouse.example', '-days', '2', '-out', join(own, 'cert.pem')];
      execFileSync('openssl', ['req', '-x509', ...key, ...name], { stdio: 'ignore' });
    }
    writeFileSync(
      join(own, 'conf'),
      kind === 'apache' ? apache(server, wish) : nginx(server, wish),
    );
    if (process.getuid?.() === 0) {
      chmodSync(own, 0o755);
      for (const name of ['kept', 'temp']) chownSync(join(own, name), WWW, WWW);
    }
    await server.begin();
    return server;
  }

  get url(): string {
    return `http${this.tls ? 's' : ''}://127.0.0.1:${this.port}/`;
  }

  /** Where its files lie. */
  get kept(): string {
    return join(this.own, 'kept');
  }

  /** SHA-256 of its certificate, as openssl tells it. */
  get fingerprint(): string {
    const how = ['x509', '-in', join(this.own, 'cert.pem'), '-noout', '-fingerprint', '-sha256'];
    return execFileSync('openssl', how, { encoding: 'utf8' }).trim().split('=')[1] ?? '';
  }

  /** What was asked: method, path, status and the scheme of the login, a line each. */
  asked(): string[] {
    const log = join(this.own, 'access');
    return existsSync(log) ? readFileSync(log, 'utf8').trim().split('\n').filter(Boolean) : [];
  }

  async begin(): Promise<void> {
    const conf = join(this.own, 'conf');
    this.child =
      this.kind === 'apache'
        ? spawn('/usr/sbin/apache2', ['-d', this.own, '-f', conf, '-DFOREGROUND'], {
            stdio: 'ignore',
          })
        : spawn(NGINX, ['-p', this.own, '-c', conf, '-e', join(this.own, 'error')], {
            stdio: 'ignore',
          });
    while (this.child.exitCode === null && !(await this.listens())) await pause(20);
    if (this.child.exitCode !== null) throw new Error(`${this.kind} did not start`);
  }

  private listens(): Promise<boolean> {
    return new Promise((resolve) => {
      const socket = connect(this.port, '127.0.0.1');
      socket.once('connect', () => {
        socket.destroy();
        resolve(true);
      });
      socket.once('error', () => resolve(false));
    });
  }

  /** Ends it in the middle of whatever it does. */
  async stop(): Promise<void> {
    const { child } = this;
    if (!child || child.exitCode !== null) return;
    const ended = once(child, 'exit');
    child.kill('SIGTERM');
    await ended;
    while (await this.listens()) await pause(20);
  }

  async close(): Promise<void> {
    await this.stop();
    rmSync(this.own, { recursive: true, force: true });
  }
}

/** www-data, as Debian numbers it. */
const WWW = 33;
const asRoot = (): boolean => process.getuid?.() === 0;

function apache({ own, port }: DavServer, { login, tls, most }: Wish): string {
  const modules = [
    ...['mpm_event', 'authn_core', 'authn_file', 'authz_core', 'authz_user', 'auth_basic'],
    ...['auth_digest', 'dav', 'dav_fs', 'alias', ...(tls ? ['ssl', 'socache_shmcb'] : [])],
  ];
  return [
    ...modules.map((name) => `LoadModule ${name}_module /usr/lib/apache2/modules/mod_${name}.so`),
    `Listen 127.0.0.1:${port}`,
    'ServerName 127.0.0.1',
    `PidFile ${own}/pid`,
    `ErrorLog ${own}/error`,
    `LogFormat "%m %U %>s %{Authorization}i" asked`,
    `CustomLog ${own}/access asked`,
    ...(asRoot() ? ['User www-data', 'Group www-data'] : []),
    `DocumentRoot ${own}/kept`,
    `DavLockDB ${own}/temp/locks`,
    ...(tls ? ['SSLEngine on', `SSLCertificateFile ${own}/cert.pem`] : []),
    ...(tls ? [`SSLCertificateKeyFile ${own}/key.pem`] : []),
    `Alias /seen ${own}/kept`,
    '<Location />',
    'Dav On',
    ...(most === undefined ? [] : [`LimitRequestBody ${most}`]),
    `AuthType ${login === 'digest' ? 'Digest' : 'Basic'}`,
    `AuthName "${REALM}"`,
    'AuthBasicProvider file',
    'AuthDigestProvider file',
    `AuthUserFile ${own}/${login}`,
    'Require valid-user',
    '</Location>',
    '<Location /seen>',
    'Dav Off',
    'Require all granted',
    '</Location>',
    '',
  ].join('\n');
}

function nginx({ own, port }: DavServer, { tls }: Wish): string {
  return `
${asRoot() ? 'user www-data;' : ''}
daemon off;
pid ${own}/pid;
events {}
http {
  log_format asked '$request_method $uri $status $http_authorization';
  access_log ${own}/access asked;
  client_body_temp_path ${own}/temp/body;
  proxy_temp_path ${own}/temp/proxy;
  fastcgi_temp_path ${own}/temp/fastcgi;
  uwsgi_temp_path ${own}/temp/uwsgi;
  scgi_temp_path ${own}/temp/scgi;
  server {
    listen 127.0.0.1:${port}${tls ? ' ssl' : ''};
    ${tls ? `ssl_certificate ${own}/cert.pem; ssl_certificate_key ${own}/key.pem;` : ''}
    root ${own}/kept;
    client_max_body_size 100m;
    dav_methods PUT DELETE MKCOL COPY MOVE;
    auth_basic "${REALM}";
    auth_basic_user_file ${own}/basic;
  }
}
`;
}
