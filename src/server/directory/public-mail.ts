import 'server-only';
import providers from 'email-providers/all.json';

const known: ReadonlySet<string> = new Set(providers);

/** Whether everybody can have an address at this domain, so that all who do are nobody in particular. */
export function isPublicMail(domain: string): boolean {
  return known.has(domain);
}
