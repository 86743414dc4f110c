'use client';

import { useMemo } from 'react';
import type { DefaultsRow } from '@/contracts/defaults';
import type { DocumentRow } from '@/contracts/document';
import type { ComposeStart } from '@/contracts/draft';
import { commonDefaults, resolveDefaults, type Begun } from '@/core/policy/defaults';
import { reaching, type Parents } from '@/core/policy/levels';
import { originWords } from '@/ui/words/origin-words';

const NOWHERE = { document: '', marking: null, folder: null };

/** What a dispatch of the chosen documents begins with, and what levels set around each of them. */
export function useBeginnings(
  { defaults, parents: pairs }: Pick<ComposeStart, 'defaults' | 'parents'>,
  chosen: readonly DocumentRow[],
): {
  readonly begins: Begun<DefaultsRow>;
  readonly around: readonly (readonly DefaultsRow[])[];
  readonly parents: Parents;
} {
  return useMemo(() => {
    const parents = new Map(Object.entries(pairs));
    const around = chosen.map(({ id, markingId, folderId }) =>
      reaching({ document: id, marking: markingId, folder: folderId }, defaults, parents),
    );
    return {
      parents,
      around,
      begins:
        around.length === 0
          ? resolveDefaults(reaching(NOWHERE, defaults, parents))
          : commonDefaults(around.map((rules) => resolveDefaults(rules))),
    };
  }, [defaults, pairs, chosen]);
}

/** Where the terms come from that nobody has changed yet. */
export function BeginningLines({ begins }: { readonly begins: Begun<DefaultsRow> }) {
  return <p className="quiet">Defaults: {originWords(begins).join('; ')}.</p>;
}
