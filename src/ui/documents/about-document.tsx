'use client';

import type { ReactNode } from 'react';
import Link from 'next/link';
import Button from '@mui/material/Button';
import type { DocumentId } from '@/core/base/ids';

export type Named = {
  readonly id: DocumentId;
  readonly title: string;
  readonly reference: string;
};

/** A page about one document, with the way back to it. */
export function AboutDocument({
  id,
  reference,
  heading,
  children,
}: Named & { readonly heading: string; readonly children: ReactNode }) {
  return (
    <main className="work wide">
      <div className="surface">
        <div className="head">
          <div className="row">
            <h1>{heading}</h1>
            <span className="figure quiet">{reference}</span>
            <span className="gap" />
            <Button component={Link} href={`/documents/${id}`}>
              Back to the document
            </Button>
          </div>
        </div>
        <div className="scroll">{children}</div>
      </div>
    </main>
  );
}
