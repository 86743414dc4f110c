'use client';

import { useMemo } from 'react';
import Link from 'next/link';
import Button from '@mui/material/Button';
import { counted } from '@/core/base/counted';
import type { CheckView } from '@/contracts/document';
import { DocumentPages } from '@/ui/pages/document-pages';
import { PageSourceProvider } from '@/ui/pages/page-source';
import { ownCheckSource } from '@/ui/seen/check-source';

/** The pages of a document as staff check them: marked with who looks, and apart from what recipients open. */
export function CheckPages({
  view: { id, title, reference, pages, revoked },
}: {
  readonly view: CheckView;
}) {
  const source = useMemo(() => ownCheckSource(id), [id]);
  return (
    <PageSourceProvider value={source}>
      <div className="reader seen-as alone">
        <header>
          <div>
            <h1>{title}</h1> <span className="figure quiet">{reference}</span>{' '}
            {revoked && <b className="magenta">revoked</b>}
            <div className="quiet small">
              {counted(pages, 'page')} · opened as a check: recorded under your name, not counted as
              an open
            </div>
          </div>
          <span className="gap" />
          <Button component={Link} href={`/documents/${id}`}>
            Back to the document
          </Button>
        </header>
        <DocumentPages
          pages={pages}
          text="copying"
          keptAs={null}
          isCovered={false}
          onRefused={nothingIsRefused}
          aside={null}
        />
      </div>
    </PageSourceProvider>
  );
}

function nothingIsRefused(): void {
  // Whoever may check a document may see all of it; anything else is told as a problem of the page.
}
