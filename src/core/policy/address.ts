/**
 * One spelling for an email address: trimmed, case folded, the domain in its ASCII form (IDNA).
 * What stands after a plus is kept, and a subdomain is another domain. `null` where it is none.
 */
export function normaliseAddress(text: string): string | null {
  const match = /^([^\s@"(),:;<>[\\\]]{1,64})@([^\s@]{1,253})$/.exec(text.trim());
  if (match === null) return null;
  const [, local = '', domain = ''] = match;
  const ascii = asciiDomain(domain);
  if (ascii === null || local.startsWith('.') || local.endsWith('.') || local.includes('..'))
    return null;
  return `${local.normalize('NFC').toLowerCase()}@${ascii}`;
}

/** The domain as IDNA to ASCII gives it, by way of the URL parser, which does the same. */
function asciiDomain(domain: string): string | null {
  try {
    const { hostname } = new URL(`https://${domain}/`);
    const labels = hostname.split('.');
    const whole =
      /^[a-z0-9.-]+$/.test(hostname) &&
      labels.length > 1 &&
      labels.every((label) => label !== '' && !label.startsWith('-') && !label.endsWith('-'));
    return whole && !/^[\d.]+$/.test(hostname) ? hostname : null;
  } catch {
    return null;
  }
}

/** `@yard.example` for what somebody typed as a domain, in one spelling; `null` where it is none. */
export function normaliseDomain(text: string): string | null {
  const domain = text.trim();
  return domain.startsWith('@') ? (normaliseAddress(`x${domain}`)?.slice(1) ?? null) : null;
}

/** `@yard.example` of `mira@yard.example`; empty for what is no address. */
export function domainOf(address: string): string {
  return address.includes('@') ? address.slice(address.lastIndexOf('@')) : '';
}

/** What may be addresses in a part of a text: `Name <address>` is one, else each word is. */
function candidatesIn(part: string): {
  readonly name: string;
  readonly candidates: readonly string[];
} {
  const [, name = '', address] = /^\s*"?([^"<]*?)"?\s*<([^<>]+)>\s*$/.exec(part) ?? [];
  const candidates = address === undefined ? part.split(/\s+/) : [address];
  return { name: name.trim(), candidates: candidates.filter((each) => each.trim() !== '') };
}

/**
 * The addresses in pasted text, the domains, `@yard.example` for everyone there, and what could not
 * be read as either. Any usual separator; `Name <address>` is understood.
 */
export function parseAddresses(text: string): {
  readonly addresses: readonly { readonly address: string; readonly name: string }[];
  readonly domains: readonly string[];
  readonly unreadable: readonly string[];
} {
  const addresses = new Map<string, string>();
  const domains = new Set<string>();
  const unreadable: string[] = [];
  for (const part of text.split(/[;,\t\n\r]+/)) {
    const { name, candidates } = candidatesIn(part);
    for (const candidate of candidates) {
      const address = normaliseAddress(candidate);
      const domain = address === null ? normaliseDomain(candidate) : null;
      if (domain !== null) domains.add(domain);
      else if (address === null) unreadable.push(candidate.trim());
      else if (!addresses.has(address)) addresses.set(address, name);
    }
  }
  return {
    addresses: Array.from(addresses, ([address, name]) => ({ address, name })),
    domains: [...domains],
    unreadable,
  };
}

/** A domain as it stands in a sentence: `yard.example` of `@yard.example`, and of itself. */
export function bareDomain(domain: string): string {
  return domain.startsWith('@') ? domain.slice(1) : domain;
}
