import { createServer, type IncomingMessage } from 'node:http';
import { BlockList, isIP } from 'node:net';
import next from 'next';
import { ConfigError, readConfig, type Config } from '@/server/config/env';

const REQUEST_TIMEOUT = 300_000;
const HEADERS_TIMEOUT = 20_000;
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

function proxiesOf(list: readonly string[]): BlockList {
  const block = new BlockList();
  for (const each of list) {
    const [address = '', prefix] = each.split('/');
    const family = isIP(address) === 6 ? 'ipv6' : 'ipv4';
    if (prefix === undefined) block.addAddress(address, family);
    else block.addSubnet(address, Number(prefix), family);
  }
  return block;
}

/** Without the prefix that an IPv4 address carries on an IPv6 socket. */
function plain(address: string): string {
  return address.startsWith('::ffff:') ? address.slice(7) : address;
}

/** The client's address: the socket's, or what the nearest trusted proxy says, read from the right. */
function clientOf(request: IncomingMessage, trusted: BlockList): string {
  const isTrusted = (address: string): boolean => isIP(address) !== 0 && trusted.check(address, isIP(address) === 6 ? 'ipv6' : 'ipv4');
  const chain = [...String(request.headers['x-forwarded-for'] ?? '').split(',').map((each) => plain(each.trim())).filter((each) => isIP(each) !== 0), plain(request.socket.remoteAddress ?? '')];
  let client = chain.pop() ?? 'unknown';
  while (isTrusted(client) && chain.length > 0) client = chain.pop() ?? client;
  return client;
}

/** Only the socket knows where a request came from; what a client says about that is removed, save from trusted proxies. */
function settleHeaders(request: IncomingMessage, trusted: BlockList): void {
  const client = clientOf(request, trusted);
  for (const name of Object.keys(request.headers)) if (name.startsWith('x-forwarded-') || name === 'forwarded' || name === 'x-real-ip' || name.startsWith('x-embargo-')) Reflect.deleteProperty(request.headers, name);
  request.headers['x-embargo-network'] = client;
}

const config = readConfigOrExit();
const trusted = proxiesOf(config.trustedProxies);
const app = next({ dev: false, hostname: config.host, port: config.port, dir: process.cwd() });
const serve = app.getRequestHandler();
await app.prepare();

const server = createServer({ requestTimeout: REQUEST_TIMEOUT, headersTimeout: HEADERS_TIMEOUT }, (request, response) => {
  settleHeaders(request, trusted);
  if (request.url === '/healthz') {
    response.writeHead(200, { 'content-type': 'text/plain', 'cache-control': 'no-store' }).end('ok\n');
    return;
  }
  response.setHeader('x-content-type-options', 'nosniff');
  response.setHeader('referrer-policy', 'no-referrer');
  response.setHeader('x-frame-options', 'DENY');
  response.setHeader('cross-origin-opener-policy', 'same-origin');
  if (config.publicUrl.startsWith('https:')) response.setHeader('strict-transport-security', 'max-age=31536000');
  serve(request, response).catch(() => {
    if (!response.headersSent) response.writeHead(500);
    response.end();
  });
});

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
    setTimeout(() => { server.closeAllConnections(); }, GRACE / 2).unref();
  });
}
