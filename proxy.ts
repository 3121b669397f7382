import { NextResponse, type NextRequest } from 'next/server';
import { env } from './server/base/env';
import { Fault } from './server/base/fault';
import { guard } from './server/http/guard';

/** Guards the pages and the fonts. The API guards itself, since a body that passes here would be cut at 10 MB. */
export function proxy(request: NextRequest): NextResponse {
  try {
    guard(request.headers, env().port);
  } catch (error) {
    const words = error instanceof Fault ? error.message : 'Refused.';
    return new NextResponse(words, { status: 403 });
  }
  const nonce = Buffer.from(crypto.randomUUID()).toString('base64');
  const policy = contentPolicy(nonce);
  const headers = new Headers(request.headers);
  headers.set('Content-Security-Policy', policy);
  const answer = NextResponse.next({ request: { headers } });
  answer.headers.set('Content-Security-Policy', policy);
  answer.headers.set('X-Content-Type-Options', 'nosniff');
  answer.headers.set('Referrer-Policy', 'no-referrer');
  answer.headers.set('Cross-Origin-Opener-Policy', 'same-origin');
  return answer;
}

function contentPolicy(nonce: string): string {
  // The development server compiles in the page; the built app never does.
  const development = process.env.NODE_ENV === 'development' ? " 'unsafe-eval'" : '';
  return [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'wasm-unsafe-eval'${development}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' blob: data:",
    // A guide that is looked at has its films in itself.
    "media-src 'self' blob: data:",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'none'",
    "frame-ancestors 'none'",
  ].join('; ');
}

export const config = { matcher: '/((?!api/|_next/|v/).*)' };
