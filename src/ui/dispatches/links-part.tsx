'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import type { DispatchDetail, GrantRow } from '@/contracts/dispatch';
import { counted } from '@/core/base/counted';
import { groupBy } from '@/core/base/group';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';
import { personName } from '@/ui/grants/grant-words';
import { Notice } from '@/ui/shell/notice';
import { Moment } from '@/ui/time/moment';

/** Links that are listed at first. */
const FEW = 12;

type Linked = {
  readonly grant: GrantRow;
  readonly opens: number;
  readonly lastOpen: number | null;
};

/** Everybody who has a link of their own in a dispatch, with what was opened. */
function linkedOf(grants: readonly GrantRow[]): Linked[] {
  const own = grants.filter(({ parent, passedOnBy }) => parent === null || passedOnBy !== null);
  return [...groupBy(own, ({ recipientId }) => recipientId).values()].flatMap((theirs) =>
    theirs.slice(0, 1).map((grant) => ({
      grant,
      opens: theirs.reduce((sum, { opens }) => sum + opens, 0),
      lastOpen: theirs.reduce<number | null>(
        (last, each) => (each.lastOpen === null ? last : Math.max(last ?? 0, each.lastOpen)),
        null,
      ),
    })),
  );
}

/** Every link of a dispatch with its use; each can be replaced alone. */
export function LinksPart({ detail }: { readonly detail: DispatchDetail }) {
  const [isOpen, setOpen] = useState(false);
  const [isWhole, setWhole] = useState(false);
  const { busy, said, attempt } = useAttempt();
  const linked = linkedOf(detail.grants);
  if (linked.length === 0) return null;
  const replace = ({ grant }: Linked) =>
    void attempt(
      () =>
        api('POST /api/v1/dispatches/:id/links', { id: detail.id, recipient: grant.recipientId }),
      `The old link of ${personName(grant)} leads nowhere now. Mail the new one again, or hand it over.`,
    );
  return (
    <section className="stack" aria-label="Links">
      <div className="row">
        <h2>Links</h2>
        <span className="gap" />
        <Button
          variant="text"
          aria-expanded={isOpen}
          onClick={() => {
            setOpen(!isOpen);
          }}
        >
          {isOpen ? 'Close' : counted(linked.length, 'link')}
        </Button>
      </div>
      <Notice said={said} />
      {isOpen && (
        <Table className="list flush" aria-label="Links">
          <TableBody>
            {linked.slice(0, isWhole ? undefined : FEW).map((each) => (
              <TableRow key={each.grant.recipientId}>
                <TableCell>
                  <b>{personName(each.grant)}</b>
                  <Used {...each} />
                </TableCell>
                <TableCell>
                  {detail.mayAdd && (
                    <Button
                      variant="text"
                      disabled={busy}
                      aria-label={`Replace the link of ${personName(each.grant)}`}
                      onClick={() => {
                        replace(each);
                      }}
                    >
                      Replace
                    </Button>
                  )}
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
      {isOpen && !isWhole && linked.length > FEW && (
        <Button
          variant="text"
          onClick={() => {
            setWhole(true);
          }}
        >
          Show all {linked.length}
        </Button>
      )}
    </section>
  );
}

function Used({ opens, lastOpen }: Linked) {
  return (
    <span className="under">
      {lastOpen === null ? (
        'never opened'
      ) : (
        <>
          {counted(opens, 'open')}, last <Moment at={lastOpen} />
        </>
      )}
    </span>
  );
}
