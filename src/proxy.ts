import { NextResponse, type NextRequest } from 'next/server';

/** A worker runs PDFium, and reaches nothing but this service. */
const WORKER = "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; connect-src 'self'";
/** The reader without a connection: a page that is the same for everybody. An empty style is emotion's. */
const OFFLINE = [
  "default-src 'none'",
  "script-src 'self'",
  "style-src 'self' 'sha256-47DEQpj8HBSa+/TImW+5JCeuQeRkm5NMpJWZG3hSuFU='",
  "style-src-attr 'unsafe-inline'",
  "img-src 'self' blob: data:",
  "font-src 'self'",
  "connect-src 'self'",
  "worker-src 'self'",
  "form-action 'self'",
  "base-uri 'none'",
  "frame-ancestors 'none'",
].join('; ');

/** The policy of a file that is served as it is: a worker is held by that of its own response. */
function policyOfFile(path: string): string | null {
  if (path === '/reader-worker.js') return WORKER;
  if (path.startsWith('/sender/')) return WORKER;
  if (!path.startsWith('/reader/')) return null;
  return path === '/reader/offline.html' ? OFFLINE : WORKER;
}

function asFile(policy: string): NextResponse {
  const response = NextResponse.next();
  response.headers.set('content-security-policy', policy);
  response.headers.set('cache-control', 'no-cache');
  return response;
}

/**
 * Gives every page its own nonce for scripts and for emotion's styles. Never matches `/api`: with a
 * proxy in front, a request body over 10 MB would silently be cut.
 */
export function proxy(request: NextRequest): NextResponse {
  const own = policyOfFile(request.nextUrl.pathname);
  if (own !== null) return asFile(own);
  const nonce = btoa(crypto.randomUUID());
  // The drill opens a chunk with WebAssembly, in the page: nowhere else is it allowed.
  const wasm = request.nextUrl.pathname === '/settings/keys' ? " 'wasm-unsafe-eval'" : '';
  // While the product is changed, the framework makes code from text and writes styles into pages.
  const reload = process.env.NODE_ENV === 'development';
  const policy = [
    "default-src 'none'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${wasm}${reload ? " 'unsafe-eval'" : ''}`,
    `style-src 'self' ${reload ? "'unsafe-inline'" : `'nonce-${nonce}'`}`,
    "style-src-attr 'unsafe-inline'",
    "img-src 'self' blob: data:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self'",
    'frame-src blob:',
    "form-action 'self'",
    "base-uri 'none'",
    "frame-ancestors 'none'",
    "manifest-src 'self'",
  ].join('; ');
  const headers = new Headers(request.headers);
  headers.set('x-nonce', nonce);
  // Pages of recipients are in their language, and the outermost layout is told no path.
  headers.set('x-recipient', /^\/r(\/|$)/.test(request.nextUrl.pathname) ? 'yes' : 'no');
  headers.set('content-security-policy', policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('content-security-policy', policy);
  response.headers.set('cache-control', 'no-store');
  return response;
}

export const config = { matcher: ['/((?!api/|_next/|favicon|icon|healthz).*)'] };
