import type { Outcome } from '@/core/ledger/entry';

export type MarkKind = 'granted' | 'refused' | 'printed' | 'waiting' | 'done' | 'failed';

const names: Record<MarkKind, string> = {
  granted: 'granted',
  refused: 'refused',
  printed: 'printed',
  waiting: 'waiting',
  done: 'done',
  failed: 'failed',
};

/** The alphabet of marks: never colour alone. */
export function Mark({ kind }: { readonly kind: MarkKind }) {
  return (
    <svg width="13" height="13" viewBox="0 0 13 13" role="img" aria-label={names[kind]}>
      {kind === 'granted' && <circle cx="6.5" cy="6.5" r="3.8" fill="var(--current)" />}
      {(kind === 'refused' || kind === 'failed') && (
        <path
          d="M6.5 1 12 6.5 6.5 12 1 6.5ZM4.7 4.7l3.6 3.6M8.3 4.7l-3.6 3.6"
          fill="none"
          stroke="var(--magenta)"
          strokeWidth="1.4"
        />
      )}
      {kind === 'printed' && (
        <rect
          x="2.5"
          y="2.5"
          width="8"
          height="8"
          fill="none"
          stroke="var(--current)"
          strokeWidth="1.6"
        />
      )}
      {kind === 'waiting' && (
        <circle cx="6.5" cy="6.5" r="4" fill="none" stroke="var(--lamp)" strokeWidth="1.6" />
      )}
      {kind === 'done' && (
        <path d="M2 6.5h8M7 3.5l3 3-3 3" fill="none" stroke="var(--quiet)" strokeWidth="1.3" />
      )}
    </svg>
  );
}

/** The mark for an entry: prints have one of their own. */
export function markOf(action: string, outcome: Outcome): MarkKind {
  if (outcome === 'granted' && (action === 'document.printed' || action === 'document.kept'))
    return 'printed';
  return outcome;
}
