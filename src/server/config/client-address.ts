import { BlockList, isIP } from 'node:net';

/** The headers of a request that say where it came from. */
export type ForwardedHeaders = {
  readonly 'x-forwarded-for'?: string | string[] | undefined;
  readonly forwarded?: string | string[] | undefined;
};

/** What is said of a client whose address cannot be known. */
const UNKNOWN_CLIENT = 'unknown';

/** The proxies in a list of addresses and networks, to be asked about an address. */
export function trustedProxies(list: readonly string[]): (address: string) => boolean {
  const block = new BlockList();
  for (const each of list) {
    const [address = '', prefix] = each.split('/');
    const family = isIP(address) === 6 ? 'ipv6' : 'ipv4';
    if (prefix === undefined) block.addAddress(address, family);
    else block.addSubnet(address, Number(prefix), family);
  }
  return (address) =>
    isIP(address) !== 0 && block.check(address, isIP(address) === 6 ? 'ipv6' : 'ipv4');
}

/** Without the prefix that an IPv4 address carries on an IPv6 socket (RFC 4291 §2.5.5.2). */
function plain(address: string): string {
  const mapped = /^::ffff:(\d+\.\d+\.\d+\.\d+)$/i.exec(address);
  return mapped?.[1] ?? address;
}

/**
 * The address of one entry, however it is written: alone, with a port, in brackets, in quotes;
 * `null` where it is none.
 */
export function addressOf(entry: string): string | null {
  const text = entry.trim().replace(/^"(.*)"$/, '$1');
  const found =
    /^\[([^\]]*)\](?::\d+)?$/.exec(text)?.[1] ?? /^([\d.]+)(?::\d+)$/.exec(text)?.[1] ?? text;
  const address = plain(found.split('%')[0] ?? '');
  return isIP(address) === 0 ? null : address;
}

function joined(value: string | string[] | undefined): string | null {
  if (value === undefined) return null;
  const text = Array.isArray(value) ? value.join(',') : value;
  return text.trim() === '' ? null : text;
}

/** Splits at a mark that stands outside quotes. */
function split(text: string, mark: ',' | ';'): string[] {
  return (
    text.match(mark === ',' ? /(?:"(?:\\.|[^"\\])*"|[^,"])+/g : /(?:"(?:\\.|[^"\\])*"|[^;"])+/g) ??
    []
  );
}

/** The addresses that `Forwarded` names, from the client on (RFC 7239 §4). */
function ofForwarded(text: string): (string | null)[] {
  return split(text, ',').map((element) => {
    const pair = split(element, ';')
      .map((each) => each.trim())
      .find((each) => /^for=/i.test(each));
    return pair === undefined ? null : addressOf(pair.slice('for='.length));
  });
}

/** Follows the entries from the nearest on, for as long as the one who wrote them is trusted. */
function follow(
  socket: string,
  entries: readonly (string | null)[],
  isTrusted: (address: string) => boolean,
): string {
  let client = socket;
  for (const entry of entries.toReversed()) {
    if (!isTrusted(client)) return client;
    // Somebody trusted says that it came from where it cannot tell: what stands before that was written by anybody.
    if (entry === null) return UNKNOWN_CLIENT;
    client = entry;
  }
  return client;
}

/**
 * The client's address: the socket's, or what trusted proxies say. Where both headers are there and
 * differ, one of them was not written by a proxy, and nobody can tell which.
 */
export function clientAddress(
  socketAddress: string,
  headers: ForwardedHeaders,
  isTrusted: (address: string) => boolean,
): string {
  const socket = plain(socketAddress);
  if (!isTrusted(socket)) return socket === '' ? UNKNOWN_CLIENT : socket;
  const [listed, forwarded] = [joined(headers['x-forwarded-for']), joined(headers.forwarded)];
  const clients = [
    ...(listed === null ? [] : [follow(socket, listed.split(',').map(addressOf), isTrusted)]),
    ...(forwarded === null ? [] : [follow(socket, ofForwarded(forwarded), isTrusted)]),
  ];
  const [first = socket, second = first] = clients;
  return first === second ? first : UNKNOWN_CLIENT;
}
