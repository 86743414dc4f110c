'use client';

import { useCallback, useState } from 'react';
import type { Right } from '@/core/policy/rights';

/** What somebody is about to ask for: whether they are writing it, and which rights they ticked. */
export type Asking = {
  readonly isOpen: boolean;
  readonly rights: ReadonlySet<Right>;
  /** Begins to ask, for a right where one is named. */
  readonly begin: (right?: Right) => void;
  readonly tick: (right: Right, on: boolean) => void;
  readonly end: () => void;
};

export function useAsking(): Asking {
  const [isOpen, setOpen] = useState(false);
  const [rights, setRights] = useState<ReadonlySet<Right>>(new Set());
  const tick = useCallback((right: Right, on: boolean) => {
    setRights((before) => {
      const after = new Set(before);
      if (on) after.add(right);
      else after.delete(right);
      return after;
    });
  }, []);
  return {
    isOpen,
    rights,
    tick,
    begin: useCallback(
      (right) => {
        setOpen(true);
        if (right !== undefined) tick(right, true);
      },
      [tick],
    ),
    end: useCallback(() => {
      setOpen(false);
      setRights(new Set());
    }, []),
  };
}
