import { isIP } from 'node:net';
import { connect, type PeerCertificate, type TLSSocket } from 'node:tls';
import { errorCode } from '../base/errorCode';
import { RemoteProblem } from './problems';
import { guardedLookup } from './reach';

const why: Record<string, (certificate: PeerCertificate) => string> = {
  DEPTH_ZERO_SELF_SIGNED_CERT: () => 'is signed by itself alone',
  SELF_SIGNED_CERT_IN_CHAIN: () => 'is signed by somebody whom this computer does not know',
  UNABLE_TO_VERIFY_LEAF_SIGNATURE: () => 'is signed by somebody whom this computer does not know',
  UNABLE_TO_GET_ISSUER_CERT_LOCALLY: () => 'is signed by somebody whom this computer does not know',
  CERT_HAS_EXPIRED: ({ valid_to: end }) => `has ended (${end})`,
  CERT_NOT_YET_VALID: ({ valid_from: start }) => `is not valid yet (from ${start} on)`,
  ERR_TLS_CERT_ALTNAME_INVALID: ({ subject }) => `is for another name (${String(subject.CN)})`,
};

function refused(socket: TLSSocket): RemoteProblem {
  const certificate = socket.getPeerCertificate();
  const error: unknown = socket.authorizationError;
  const code = errorCode(error) || String(error);
  const reason = why[code]?.(certificate) ?? `cannot be checked (${code})`;
  return new RemoteProblem(
    `The certificate of the other machine ${reason}. Its fingerprint is ${certificate.fingerprint256}. Whoever runs that machine can say whether it is theirs.`,
    'certificate',
    certificate.fingerprint256,
  );
}

/**
 * A connection whose other end showed a certificate that this computer knows, or the very one that
 * a person trusts. Before that no word is sent.
 * @throws RemoteProblem for another certificate, with its fingerprint
 */
export function secureSocket(
  to: { host: string; port: number; fingerprint: string | null },
  { signal, silence }: { signal: AbortSignal; silence: number },
): Promise<TLSSocket> {
  const { host, port, fingerprint } = to;
  return new Promise((resolve, reject) => {
    signal.throwIfAborted();
    const socket = connect({
      host,
      port,
      lookup: guardedLookup,
      ...(isIP(host) ? {} : { servername: host }),
      ALPNProtocols: ['http/1.1'],
      rejectUnauthorized: false,
    });
    const failed = (error: Error) => {
      socket.destroy();
      reject(error);
    };
    const abort = () => failed(new Error('stopped'));
    signal.addEventListener('abort', abort, { once: true });
    socket.setTimeout(silence, () => failed(new Error('silence')));
    socket.once('error', failed);
    socket.once('secureConnect', () => {
      signal.removeEventListener('abort', abort);
      const trusted = fingerprint === socket.getPeerCertificate().fingerprint256;
      if (!socket.authorized && !trusted) return failed(refused(socket));
      socket.removeListener('error', failed);
      socket.setTimeout(0);
      resolve(socket);
    });
  });
}

const SOON = 2_000;

/** Whether TLS is spoken at a place, whatever its certificate; nothing is sent there. */
export function speaksTls(host: string, port: number, signal: AbortSignal): Promise<boolean> {
  return new Promise((resolve) => {
    const socket = connect({ host, port, lookup: guardedLookup, rejectUnauthorized: false });
    const done = (speaks: boolean) => {
      socket.destroy();
      resolve(speaks);
    };
    socket.setTimeout(SOON, () => done(false));
    signal.addEventListener('abort', () => done(false), { once: true });
    socket.once('error', () => done(false));
    socket.once('secureConnect', () => done(true));
  });
}
