'use client';

import { useState, type ReactNode } from 'react';
import type { GrantRow } from '@/contracts/dispatch';
import type { GrantId } from '@/core/base/ids';
import { GrantPanel } from '@/ui/grants/grant-panel';
import { GrantsTable } from '@/ui/grants/grants-table';

/** A work surface of grants under a head, with the selected one explained at the side. */
export function GrantsSurface({
  head,
  grants,
  now,
  showDocument,
  aside,
  empty,
}: {
  readonly head: ReactNode;
  readonly grants: readonly GrantRow[];
  readonly now: number;
  readonly showDocument: boolean;
  readonly aside: ReactNode;
  readonly empty: ReactNode;
}) {
  const [selected, setSelected] = useState<GrantId | null>(null);
  const grant = grants.find((each) => each.id === selected);
  return (
    <main className="work">
      <div className="surface">
        <div className="head">{head}</div>
        <div className="scroll">
          {grants.length === 0 ? (
            empty
          ) : (
            <GrantsTable
              grants={grants}
              now={now}
              showDocument={showDocument}
              selected={selected}
              onSelect={setSelected}
            />
          )}
        </div>
      </div>
      <aside className="side" aria-label="Explanation">
        {grant === undefined ? aside : <GrantPanel grant={grant} now={now} />}
        {grant !== undefined && (
          <>
            <hr />
            {aside}
          </>
        )}
      </aside>
    </main>
  );
}
