import ipaddr from 'ipaddr.js';

/** Whether this is a network in CIDR notation: an address, a slash and a length that fits it. */
export function isNetwork(text: string): boolean {
  return ipaddr.isValidCIDR(text) && (!text.includes('.') || ipaddr.IPv4.isValidFourPartDecimal(text.split('/', 1)[0] ?? '') || text.includes(':'));
}

/**
 * Makes the test whether an address lies in one of the networks. IPv4 addresses that come mapped into IPv6 (RFC 4291
 * §2.5.5.2) count as IPv4; what is no address lies in none, and what is no network holds none.
 */
export function networkTest(networks: readonly string[]): (address: string) => boolean {
  const ranges = networks.filter(isNetwork).map((network) => ipaddr.parseCIDR(network));
  return (address) => {
    if (!ipaddr.isValid(address)) return false;
    const found = ipaddr.process(address);
    return ranges.some(([network, length]) => found.kind() === network.kind() && found.match(network, length));
  };
}
