import 'server-only';

/** Where somebody can be written to: who came by an open link has no address; null. */
export function mailAddressOf(
  person: { readonly kind: string; readonly address: string } | null,
): string | null {
  return person?.kind === 'person' ? person.address : null;
}
