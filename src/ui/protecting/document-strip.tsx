'use client';

import { memo, type ReactNode } from 'react';
import { useDropzone } from 'react-dropzone';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import type { DocumentRow } from '@/contracts/document';
import type { MarkingRow } from '@/contracts/marking';
import type { Page } from '@/contracts/page';
import { aboutDocument, DocumentBox } from '@/ui/protecting/document-box';
import { FileCard } from '@/ui/protecting/file-card';
import type { Files } from '@/ui/protecting/use-files';

/** The documents of a dispatch; files that are dropped here are protected and join them. */
export function DocumentStrip({
  first,
  markings,
  documents,
  files,
  onPick: pick,
  children,
}: {
  /** The documents that are offered without typing. */
  readonly first: Page<DocumentRow>;
  readonly markings: readonly MarkingRow[];
  readonly documents: readonly DocumentRow[];
  readonly files: Files;
  readonly onPick: (document: DocumentRow, on: boolean) => void;
  /** Where files are put. */
  readonly children?: ReactNode;
}) {
  const { getRootProps, getInputProps, isDragActive, open } = useDropzone({
    onDrop: files.add,
    noClick: true,
    noKeyboard: true,
  });
  return (
    <section
      {...getRootProps({
        className: `document-strip${isDragActive ? ' over' : ''}`,
        'aria-label': 'Documents',
        role: 'region',
      })}
    >
      <input {...getInputProps({ 'aria-label': 'Files to protect' })} />
      <ul className="document-cards" aria-label="Chosen documents">
        {documents.map((document) => (
          <DocumentCard
            key={document.id}
            document={document}
            onRemove={() => {
              pick(document, false);
            }}
          />
        ))}
        {files.jobs.map((job) => (
          <FileCard key={job.key} job={job} files={files} markings={markings} />
        ))}
      </ul>
      <div className="row one-row">
        <DocumentBox
          first={first}
          chosen={documents}
          onPick={(document) => {
            pick(document, true);
          }}
        />
        <Button className="nowrap" onClick={open}>
          Choose files
        </Button>
        {children}
        <span className="quiet small">or drop files here</span>
      </div>
    </section>
  );
}

type CardProps = {
  readonly document: DocumentRow;
  /** Whatever was handed over first stays good: it works on what is composed by then. */
  readonly onRemove: () => void;
};

/** Fifty of them are not drawn again at every key. */
const DocumentCard = memo(
  function DocumentCard({ document, onRemove }: CardProps) {
    return (
      <li className={document.revoked ? 'document-card stops' : 'document-card'}>
        <span className="document-card-text">
          <b>{document.title}</b>
          <span className="under oneline">{aboutDocument(document)}</span>
        </span>
        <IconButton
          size="small"
          className="card-remove"
          aria-label={`Remove ${document.title}`}
          onClick={onRemove}
        >
          ×
        </IconButton>
      </li>
    );
  },
  (before, after) => before.document === after.document,
);
