/** What a second administrator is asked to agree to, where the organisation wants two people for it. */
export type ConsentKind = 'destroy-keys' | 'one-person' | 'send' | 'lower-marking';
