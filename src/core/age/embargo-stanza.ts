import { AgeError } from '@/core/age/errors';
import type { Header, Stanza } from '@/core/age/header';
import type { VersionId } from '@/core/base/ids';

const EMBARGO = 'embargo';

/**
 * The stanza that leads back to the service: `embargo <version-id> <service-url>`, empty body.
 * It holds no key; the key is only ever in the vault.
 */
export function embargoStanza(version: VersionId, serviceUrl: string): Stanza {
  return { args: [EMBARGO, version, serviceUrl], body: new Uint8Array(0) };
}

/** Our stanza of a header, or `null` where the file was not made by Embargo. Unauthenticated, like all of a header. */
export function findEmbargoStanza(
  header: Header,
): { readonly version: string; readonly serviceUrl: string } | null {
  const found = header.stanzas.find((stanza) => stanza.args[0] === EMBARGO);
  if (found === undefined) return null;
  const [, version, serviceUrl, ...rest] = found.args;
  if (version === undefined || serviceUrl === undefined || rest.length > 0 || found.body.length > 0)
    throw new AgeError('BAD_HEADER', 'embargo stanza');
  return { version, serviceUrl };
}
