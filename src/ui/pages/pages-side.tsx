'use client';

import type { ReactNode } from 'react';

const SIDES = ['pages', 'outline', 'found'] as const;
export type Side = (typeof SIDES)[number];

const sideWords: Readonly<Record<Side, string>> = {
  pages: 'Pages',
  outline: 'Outline',
  found: 'Found',
};

type Props = {
  readonly side: Side;
  readonly onSide: (side: Side | null) => void;
  readonly children: ReactNode;
};

/** The strip beside the pages, to find one's way. */
export function PagesSide({ side, onSide, children }: Props) {
  return (
    <nav className="side" aria-label="In this document">
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
          aria-label="Close"
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
