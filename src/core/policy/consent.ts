/** What a second administrator is asked to agree to, where the organisation wants two people for it. */
export const CONSENT_KINDS = ['destroy-keys', 'one-person', 'send', 'lower-marking'] as const;
export type ConsentKind = (typeof CONSENT_KINDS)[number];
