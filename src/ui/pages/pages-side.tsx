'use client';

import type { ReactNode } from 'react';
import { useWords } from '@/ui/words/use-words';

const SIDES = ['pages', 'outline', 'found'] as const;
export type Side = (typeof SIDES)[number];

type Props = {
  readonly side: Side;
  readonly onSide: (side: Side | null) => void;
  readonly children: ReactNode;
};

/** The strip beside the pages, to find one's way. */
export function PagesSide({ side, onSide, children }: Props) {
  const { say } = useWords();
  const sideWords: Readonly<Record<Side, string>> = {
    pages: say('pages.label'),
    outline: say('pages.outline'),
    found: say('pages.found'),
  };
  return (
    <nav className="side" aria-label={say('pages.inDocument')}>
      <div className="row tight-row">
        {SIDES.map((each) => (
          <button
            key={each}
            type="button"
            aria-pressed={each === side}
            onClick={() => {
              onSide(each);
            }}
          >
            {sideWords[each]}
          </button>
        ))}
        <span className="gap" />
        <button
          type="button"
          aria-label={say('close')}
          onClick={() => {
            onSide(null);
          }}
        >
          ×
        </button>
      </div>
      {children}
    </nav>
  );
}
