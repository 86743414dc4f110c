'use client';

import Link from 'next/link';
import Button from '@mui/material/Button';
import type { DocumentId } from '@/core/base/ids';
import { DocumentCommentsView } from '@/ui/comments/document-comments';

/** The page with all comments of one document. */
export function CommentsPage({
  id,
  title,
  reference,
}: {
  readonly id: DocumentId;
  readonly title: string;
  readonly reference: string;
}) {
  return (
    <main className="work wide">
      <div className="surface">
        <div className="head">
          <div className="row">
            <h1>Comments on {title}</h1>
            <span className="figure quiet">{reference}</span>
            <span className="gap" />
            <Button component={Link} href={`/documents/${id}`}>
              Back to the document
            </Button>
          </div>
        </div>
        <div className="scroll">
          <DocumentCommentsView id={id} />
        </div>
      </div>
    </main>
  );
}
