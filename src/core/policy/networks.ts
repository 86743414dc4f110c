import ipaddr from 'ipaddr.js';

type Address = ipaddr.IPv4 | ipaddr.IPv6;
type Network = readonly [Address, number];

/** Bits before the IPv4 part of an address that is mapped into IPv6. */
const MAPPED = 96;

/** Whether this is a network in CIDR notation: an address, a slash and a length that fits it. */
export function isNetwork(text: string): boolean {
  return (
    ipaddr.isValidCIDR(text) &&
    (!text.includes('.') ||
      ipaddr.IPv4.isValidFourPartDecimal(text.split('/', 1)[0] ?? '') ||
      text.includes(':'))
  );
}

/**
 * Networks of mapped addresses (RFC 4291 §2.5.5.2) are those of IPv4 that they stand for; what is
 * no network is `null`.
 */
function parseNetwork(text: string): Network | null {
  if (!isNetwork(text)) return null;
  const [address, length] = ipaddr.parseCIDR(text);
  if (!(address instanceof ipaddr.IPv6) || !address.isIPv4MappedAddress() || length < MAPPED)
    return [address, length];
  return [address.toIPv4Address(), length - MAPPED];
}

/** Networks by how they are written: the few that an organisation names come with every request anew. */
const parsed = new Map<string, Network | null>();
const MOST_PARSED = 4_096;

function networkOf(text: string): Network | null {
  const known = parsed.get(text);
  if (known !== undefined) return known;
  const network = parseNetwork(text);
  if (parsed.size >= MOST_PARSED) parsed.clear();
  parsed.set(text, network);
  return network;
}

/** An address as networks are asked about it; mapped ones count as IPv4, and what is no address is `null`. */
export function parseAddress(text: string): Address | null {
  try {
    return ipaddr.process(text);
  } catch {
    return null;
  }
}

/** Makes the test whether an address lies in one of the networks; what is no network holds none. */
export function networkTest(networks: readonly string[]): (address: Address | null) => boolean {
  const ranges = networks.map(networkOf).filter((network) => network !== null);
  return (address) =>
    address !== null &&
    ranges.some(
      ([network, length]) => address.kind() === network.kind() && address.match(network, length),
    );
}

/** The address after the last one of a network; `null`: there is none. */
function after([address, length]: Network): Address | null {
  const bytes = address.toByteArray();
  const last = length - 1;
  if (last < 0) return null;
  // The bits of the network, one more, as an addition with carry.
  let carry = 1 << (7 - (last % 8));
  for (let at = Math.floor(last / 8); at >= 0 && carry > 0; at--) {
    const sum = (bytes[at] ?? 0) + carry;
    bytes[at] = sum % 256;
    carry = sum >= 256 ? 1 : 0;
  }
  return carry > 0 ? null : ipaddr.fromByteArray(bytes);
}

function first([address, length]: Network): Address {
  const bytes = address
    .toByteArray()
    .map((byte, at) => byte & (0xff00 >> Math.min(8, Math.max(0, length - at * 8))) & 0xff);
  return ipaddr.fromByteArray(bytes);
}

/**
 * Addresses of which each stands for all between it and the next: which of these networks an
 * address lies in changes nowhere else. What is no network has none.
 */
export function networkEdges(networks: readonly string[]): string[] {
  const ranges = networks.map(networkOf).filter((network) => network !== null);
  const edges = ranges
    .flatMap((network) => [first(network), after(network)])
    .filter((address) => address !== null);
  return [...new Set(['0.0.0.0', '::', ...edges.map((address) => address.toString())])];
}
