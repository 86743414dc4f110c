'use client';

import type { DispatchDetail } from '@/contracts/dispatch';
import { DispatchAside } from '@/ui/dispatches/dispatch-aside';
import { DispatchHead } from '@/ui/dispatches/dispatch-head';
import { LinesSurface } from '@/ui/dispatches/lines-surface';
import { GrantsTable } from '@/ui/grants/grants-table';

/** One dispatch: to whom, with which rights, until when. */
export function DispatchView({
  detail,
  now,
}: {
  readonly detail: DispatchDetail;
  readonly now: number;
}) {
  const { grants, marks } = detail;
  const severalDocuments = new Set(grants.map((grant) => grant.documentId)).size > 1;
  return (
    <LinesSurface
      head={<DispatchHead detail={detail} now={now} />}
      grants={grants}
      marks={marks}
      now={now}
      rows={(selected, onSelect) => (
        <GrantsTable
          grants={grants}
          now={now}
          showDocument={severalDocuments}
          selected={selected}
          onSelect={onSelect}
        />
      )}
      aside={<DispatchAside detail={detail} now={now} severalDocuments={severalDocuments} />}
    />
  );
}
