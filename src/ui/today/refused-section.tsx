'use client';

import Link from 'next/link';
import type { TodayPage } from '@/contracts/today';
import type { DocumentId, RecipientId } from '@/core/base/ids';
import { refusalName } from '@/core/policy/refusal-names';
import { ChipButton } from '@/ui/shell/chips';
import { useHolds } from '@/ui/shell/permissions';
import { Moment } from '@/ui/time/moment';
import { TodaySection } from '@/ui/today/today-section';

type Refused = TodayPage['refused'][number];
type Ask = (recipient: RecipientId, document: DocumentId) => void;

/** Who was refused in the last week, with why in one click. */
export function RefusedSection({
  refused,
  onWhy,
}: {
  readonly refused: readonly Refused[];
  readonly onWhy: Ask;
}) {
  return (
    <TodaySection
      title="Refused in the last week"
      none="Nobody was refused."
      rows={refused.map((row) => ({
        key: `${row.recipientId ?? row.who} ${row.documentId ?? ''} ${row.reason}`,
        cells: [
          <>
            <b>{row.who}</b>
            <span className="under">
              {row.organisation === '' ? 'not a recipient' : row.organisation}
            </span>
          </>,
          row.title === '' ? <span className="quiet">a forwarded link</span> : row.title,
          <span className="magenta">
            {refusalName(row.reason)}
            {row.times > 1 && `, ${String(row.times)} times`}
          </span>,
          <Moment at={row.last} />,
          <RefusedActs row={row} onWhy={onWhy} />,
        ],
      }))}
    />
  );
}

function RefusedActs({ row, onWhy }: { readonly row: Refused; readonly onWhy: Ask }) {
  const readsRecord = useHolds('read-own-record');
  const { recipientId, documentId, who, title } = row;
  if (recipientId === null)
    return readsRecord ? (
      <Link prefetch={false} href="/ledger?kind=refused">
        Show in ledger
      </Link>
    ) : null;
  return (
    <div className="row tight">
      <Link prefetch={false} href={`/people?person=${recipientId}`}>
        Show person
      </Link>
      {documentId !== null && (
        <ChipButton
          aria-label={`Why: ${who}, ${title}`}
          onClick={() => {
            onWhy(recipientId, documentId);
          }}
        >
          Why?
        </ChipButton>
      )}
    </div>
  );
}
