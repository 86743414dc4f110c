'use client';

import { useMemo } from 'react';
import Link from 'next/link';
import Button from '@mui/material/Button';
import type { AfterPage, AfterRow } from '@/contracts/after-revocation';
import type { GrantId } from '@/core/base/ids';
import { afterColumns } from '@/ui/after/after-columns';
import { closedText } from '@/ui/after/after-words';
import { api } from '@/ui/http/api';
import { useAttempt, type Attempt } from '@/ui/http/use-attempt';
import { Empty } from '@/ui/shell/empty';
import { Notice } from '@/ui/shell/notice';
import { DataTable } from '@/ui/tables/data-table';

/** What came of pulling access back, person by person, until nobody is left who can read. */
export function AfterView({ page }: { readonly page: AfterPage }) {
  const { about, rows, keyDestroyed } = page;
  const work = useAttempt();
  const back =
    about.dispatch === null
      ? `/documents/${about.document ?? ''}`
      : `/dispatches/${about.dispatch}`;
  return (
    <main className="work wide">
      <div className="surface">
        <div className="head">
          <div className="row">
            <h1>After the revocation</h1>
            <Link href={back}>{about.name}</Link>
            <span className="figure quiet">{about.reference}</span>
            <span className="gap" />
            <AfterActs page={page} work={work} />
          </div>
          {rows.length > 0 && <p className="answer above-6">{closedText(page)}</p>}
          {keyDestroyed && (
            <p className="quiet">
              The key is destroyed: nobody can ever open it again, and nothing can be taken back.
            </p>
          )}
          <Notice said={work.said} />
        </div>
        <div className="scroll">
          {rows.length === 0 ? (
            <Empty title="Nothing of this is revoked">
              <Link href={back}>Back to {about.name}</Link>
            </Empty>
          ) : (
            <AfterTable rows={rows} work={work} oneDocument={about.dispatch === null} />
          )}
        </div>
      </div>
    </main>
  );
}

/** What can be taken back at once, and the statement of it. */
function AfterActs({ page, work }: { readonly page: AfterPage; readonly work: Attempt }) {
  const { about, rows, documentRevoked, keyDestroyed, mayReinstate } = page;
  const { document } = about;
  const undo = rows.flatMap((row) => row.undo);
  const query =
    about.dispatch === null ? `document=${document ?? ''}` : `dispatch=${about.dispatch}`;
  return (
    <>
      {document !== null && documentRevoked && mayReinstate && !keyDestroyed && (
        <Button
          disabled={work.busy}
          onClick={() =>
            void work.attempt(
              () => api('POST /api/v1/documents/:id/reinstate', { id: document }),
              'The document is reinstated.',
            )
          }
        >
          Reinstate the document
        </Button>
      )}
      {undo.length > 0 && (
        <Button disabled={work.busy} onClick={() => void reinstate(work, undo)}>
          Reinstate all {undo.length}
        </Button>
      )}
      {rows.length > 0 && (
        <Button component="a" href={`/api/v1/revocation-statement?${query}`} download>
          Signed statement
        </Button>
      )}
    </>
  );
}

function reinstate({ attempt }: Pick<Attempt, 'attempt'>, grants: readonly GrantId[]) {
  return attempt(
    () => api('POST /api/v1/grants/reinstate', { grants }),
    ({ changed }) => `Reinstated ${String(changed)}.`,
  );
}

function AfterTable({
  rows,
  work: { busy, attempt },
  oneDocument,
}: {
  readonly rows: readonly AfterRow[];
  readonly work: Attempt;
  readonly oneDocument: boolean;
}) {
  const columns = useMemo(
    () =>
      afterColumns(oneDocument, busy, (row) => {
        void reinstate({ attempt }, row.undo);
      }),
    [oneDocument, busy, attempt],
  );
  return (
    <DataTable
      id="after"
      label="After the revocation"
      columns={columns}
      rows={rows}
      keyOf={(row) => `${row.recipient} ${row.document}`}
    />
  );
}
