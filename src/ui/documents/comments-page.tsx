'use client';

import { DocumentCommentsView } from '@/ui/comments/document-comments';
import { AboutDocument, type Named } from '@/ui/documents/about-document';

/** The page with all comments of one document. */
export function CommentsPage(named: Named) {
  return (
    <AboutDocument {...named} heading={`Comments on ${named.title}`}>
      <DocumentCommentsView id={named.id} />
    </AboutDocument>
  );
}
