'use client';

import { useState } from 'react';
import type { ComposeStart } from '@/contracts/draft';
import type { DocumentId, DraftId } from '@/core/base/ids';
import { ComposeView } from '@/ui/compose/compose-view';

/**
 * What is composed goes on where the page fetches its own data anew, also once it has become a draft
 * meanwhile; another draft begins anew.
 */
export function ComposeHere(props: {
  readonly start: ComposeStart;
  readonly chosen: readonly DocumentId[];
  readonly to: string;
}) {
  const [made, setMade] = useState<{ readonly id: DraftId; readonly of: string } | null>(null);
  const asked = props.start.draft?.id ?? null;
  const composed = asked !== null && asked === made?.id ? made.of : (asked ?? 'new');
  return (
    <ComposeView
      key={composed}
      {...props}
      onMade={(id) => {
        setMade({ id, of: composed });
      }}
    />
  );
}
