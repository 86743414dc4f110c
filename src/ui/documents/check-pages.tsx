'use client';

import { useState } from 'react';
import Link from 'next/link';
import Button from '@mui/material/Button';
import { counted } from '@/core/base/counted';
import type { CheckView } from '@/contracts/document';

/** The pages of a document as staff check them: marked with who looks, and apart from what recipients open. */
export function CheckPages({
  view: { id, title, reference, pages, revoked },
}: {
  readonly view: CheckView;
}) {
  return (
    <main className="work wide">
      <div className="surface">
        <div className="head">
          <div className="row">
            <h1>{title}</h1>
            <span className="figure quiet">{reference}</span>
            {revoked && <b className="magenta">revoked</b>}
            <span className="gap" />
            <Button component={Link} href={`/documents/${id}`}>
              Back to the document
            </Button>
          </div>
          <div className="quiet above-4">
            {counted(pages, 'page')} · opened as a check: recorded under your name, not counted as
            an open
          </div>
        </div>
        <div className="scroll">
          <div className="checked" aria-label="Pages">
            {Array.from({ length: pages }, (_, index) => (
              <CheckedPage key={index} document={id} page={index + 1} />
            ))}
          </div>
        </div>
      </div>
    </main>
  );
}

function CheckedPage({ document, page }: { readonly document: string; readonly page: number }) {
  const [failed, setFailed] = useState(false);
  return (
    <div className="page unseen">
      {failed ? (
        <p role="alert" className="magenta part">
          Page {page} could not be drawn.
        </p>
      ) : (
        <img
          src={`/api/v1/documents/${document}/check/pages/${String(page)}?width=1275`}
          alt={`Page ${String(page)}`}
          loading="lazy"
          draggable={false}
          onError={() => {
            setFailed(true);
          }}
        />
      )}
      <span className="number">{page}</span>
    </div>
  );
}
