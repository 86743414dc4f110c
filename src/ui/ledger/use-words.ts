'use client';

import { useMemo } from 'react';
import type { Named } from '@/contracts/ledger';
import type { Words } from '@/core/insight/fact-words';
import { momentText } from '@/core/base/moment-text';
import { useZone } from '@/ui/time/use-zone';

/** How the ids and moments of a page of the ledger are told, in the reader's zone. */
export function useWords(named: Named): Words {
  const zone = useZone();
  return useMemo(
    () => ({
      nameOf: (id: string) => named[id] ?? id,
      moment: (at: number) => momentText(at, zone),
    }),
    [named, zone],
  );
}
