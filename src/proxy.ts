import { NextResponse, type NextRequest } from 'next/server';
import { turnedAway } from './server/gate';

/** Only this app's own scripts and styles run; nothing is loaded from elsewhere. */
function contentPolicy(nonce: string): string {
  const development = process.env.NODE_ENV === 'development' ? " 'unsafe-eval'" : '';
  return [
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic' 'wasm-unsafe-eval'${development}`,
    `style-src-elem 'self' 'nonce-${nonce}'`,
    "style-src-attr 'unsafe-inline'",
    "default-src 'self'",
    "worker-src 'self' blob:",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "object-src 'none'",
    "base-uri 'self'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
}

export function proxy(request: NextRequest): NextResponse {
  const turned = turnedAway({
    method: request.method,
    url: request.nextUrl.pathname + request.nextUrl.search,
    header: (name) => request.headers.get(name) ?? undefined,
  });
  if (turned)
    return NextResponse.json({ error: { code: turned.code, detail: turned.detail } }, { status: turned.status });
  const nonce = btoa(crypto.randomUUID());
  const policy = contentPolicy(nonce);
  const headers = new Headers(request.headers);
  headers.set('x-nonce', nonce);
  headers.set('content-security-policy', policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('content-security-policy', policy);
  response.headers.set('x-content-type-options', 'nosniff');
  response.headers.set('referrer-policy', 'no-referrer');
  return response;
}
