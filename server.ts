import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import next from 'next';
import { clientAddress, trustedProxies } from '@/server/config/client-address';
import { healthReport } from '@/server/health/health';
import { beforeFramework } from '@/server/front/before-framework';
import { createRequestRate } from '@/server/config/request-rate';
import { ConfigError, readConfig, type Config } from '@/server/config/env';

const REQUEST_TIMEOUT = 300_000;
const HEADERS_TIMEOUT = 20_000;
/** Whoever turns a page every few seconds goes on with the same connection, which is not closed as they ask. */
const KEEP_ALIVE_TIMEOUT = 65_000;
const GRACE = 10_000;

function readConfigOrExit(): Config {
  try {
    return readConfig();
  } catch (error) {
    if (!(error instanceof ConfigError)) throw error;
    console.error(error.message);
    process.exit(1);
  }
}

/**
 * Only the socket knows where a request came from; what a client says about that is removed, save
 * from trusted proxies.
 */
function settleHeaders(request: IncomingMessage, isTrusted: (address: string) => boolean): void {
  const client = clientAddress(request.socket.remoteAddress ?? '', request.headers, isTrusted);
  for (const name of Object.keys(request.headers)) {
    if (
      name.startsWith('x-forwarded-') ||
      name === 'forwarded' ||
      name === 'x-real-ip' ||
      name.startsWith('x-embargo-')
    )
      Reflect.deleteProperty(request.headers, name);
  }
  request.headers['x-embargo-network'] = client;
}

/** What the framework answers sensibly; it stumbles over others. */
const METHODS = new Set(['GET', 'HEAD', 'POST', 'PUT', 'DELETE']);

function isReadable(url: string): boolean {
  try {
    return (
      url.startsWith('/') &&
      !url.startsWith('//') &&
      decodeURIComponent(url.split('?', 1)[0] ?? '') !== ''
    );
  } catch {
    return false;
  }
}

function refuse(response: ServerResponse, status: number, sentence: string): void {
  response
    .writeHead(status, {
      'content-type': 'text/plain',
      'cache-control': 'no-store',
      connection: 'close',
    })
    .end(`${sentence}\n`);
}

/** The cookies by which a browser says who it is. */
const OWN_COOKIE = /(?:^|;\s*)(?:__Host-)?embargo-(?:device|staff|browser)=([^;]{1,100})/;
const mayGoOn = createRequestRate();

/** Files that never change cost little and come by the dozen; all else is counted. */
function isTooMuch({ url = '', headers }: IncomingMessage): boolean {
  if (url.startsWith('/_next/static/') || url === '/healthz' || config.reload) return false;
  return !mayGoOn(
    String(headers['x-embargo-network']),
    OWN_COOKIE.exec(headers.cookie ?? '')?.[1] ?? null,
    Date.now(),
  );
}

const config = readConfigOrExit();
const isTrusted = trustedProxies(config.trustedProxies);
const app = next({
  dev: config.reload,
  hostname: config.host,
  port: config.port,
  dir: process.cwd(),
});
const serve = app.getRequestHandler();
await app.prepare();

const server = createServer(
  {
    requestTimeout: REQUEST_TIMEOUT,
    headersTimeout: HEADERS_TIMEOUT,
    keepAliveTimeout: KEEP_ALIVE_TIMEOUT,
  },
  (request, response) => {
    settleHeaders(request, isTrusted);
    if (!METHODS.has(request.method ?? '')) {
      refuse(response, 405, 'This is not done here.');
      return;
    }
    if (!isReadable(request.url ?? '')) {
      refuse(response, 400, 'This address is not readable.');
      return;
    }
    if (isTooMuch(request)) {
      response.setHeader('retry-after', '1');
      refuse(response, 429, 'Too much is being asked for at once. Wait a moment and try again.');
      return;
    }
    if (request.url === '/healthz') {
      const { serves, text } = healthReport();
      response
        .writeHead(serves ? 200 : 503, {
          'content-type': 'text/plain',
          'cache-control': 'no-store',
        })
        .end(text);
      return;
    }
    response.setHeader('x-content-type-options', 'nosniff');
    response.setHeader('referrer-policy', 'no-referrer');
    response.setHeader('x-frame-options', 'DENY');
    response.setHeader('cross-origin-opener-policy', 'same-origin');
    if (config.publicUrl.startsWith('https:'))
      response.setHeader('strict-transport-security', 'max-age=31536000');
    const early = config.reload ? null : beforeFramework(request, response, config.publicUrl);
    (early ?? serve(request, response)).catch(() => {
      if (!response.headersSent) response.writeHead(500);
      response.end();
    });
  },
);

// Over this the browser hears what was changed.
if (config.reload) {
  const upgrade = app.getUpgradeHandler();
  server.on('upgrade', (request, socket, head) => {
    void upgrade(request, socket, head);
  });
}

server.listen(config.port, config.host, () => {
  console.log(`Embargo is at ${config.publicUrl}`);
});

let stopping = false;
for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.on(signal, () => {
    if (stopping) return;
    stopping = true;
    // Uploads and print renditions get a moment to end; open event streams would never end by themselves.
    server.close(() => process.exit(0));
    server.closeIdleConnections();
    setTimeout(() => process.exit(0), GRACE).unref();
    setTimeout(() => {
      server.closeAllConnections();
    }, GRACE / 2).unref();
  });
}
