'use client';

import { counted } from '@/core/base/counted';
import Button from '@mui/material/Button';
import { DEFAULT_LANGUAGE } from '@/core/base/languages';
import type { DocumentId } from '@/core/base/ids';
import type { SharedDocument, SharedWith } from '@/contracts/reader';
import { Moment } from '@/ui/time/moment';
import { FormattedText } from '@/ui/words/formatted-text';
import { refusalWords } from '@/ui/words/reason-words';
import { verbList } from '@/ui/words/rights-words';
import { Emblem } from '@/ui/shell/emblem';
import { pagesText } from '@/ui/words/pages-words';

/** The documents of one dispatch, with what this person may do. */
export function SharedList({
  shared,
  onOpen,
  onLeave,
}: {
  readonly shared: SharedWith;
  readonly onOpen: (id: DocumentId) => void;
  readonly onLeave: () => void;
}) {
  return (
    <main className="entry shared">
      <div className="brand">
        <Emblem />
        Embargo
      </div>
      <h1>
        {shared.sender?.name} of {shared.sender?.organisation} sent you{' '}
        {counted(shared.documents.length, 'document')}
      </h1>
      <p className="quiet above-6">
        You are here as {shared.address}.{' '}
        <Button variant="text" onClick={onLeave}>
          Use another email address
        </Button>
      </p>
      {shared.note !== '' && (
        <div className="note">
          <FormattedText text={shared.note} />
        </div>
      )}
      <ul>
        {shared.documents.map((document) => (
          <SharedRow
            key={document.id}
            document={document}
            onOpen={() => {
              onOpen(document.id);
            }}
          />
        ))}
      </ul>
    </main>
  );
}

/** How often it can still be opened, said before one is spent. */
function leftWords(opens: number): string {
  if (opens === 1) return 'you can open it once more';
  return `you can open it ${String(opens)} more times`;
}

function SharedRow({
  document,
  onOpen,
}: {
  readonly document: SharedDocument;
  readonly onOpen: () => void;
}) {
  const { state } = document;
  return (
    <li className="row">
      <div>
        <b>{document.title}</b> <span className="figure quiet">{document.reference}</span>
        <br />
        {state.open ? (
          <span className="quiet">
            You may {verbList(state.rights)}
            {state.until === null ? (
              ', with no end'
            ) : (
              <>
                {' '}
                until <Moment at={state.until} named />
              </>
            )}{' '}
            · {pagesText(document.pages)}
            {state.opensLeft !== null && (
              <span className="lamp"> · {leftWords(state.opensLeft)}</span>
            )}
          </span>
        ) : (
          <span className="magenta">
            {refusalWords[DEFAULT_LANGUAGE][state.reason].title}
            {state.at !== null && (
              <>
                {' '}
                <Moment at={state.at} named />
              </>
            )}
          </span>
        )}
      </div>
      <Button onClick={onOpen}>{state.open ? 'Read' : 'Ask for it'}</Button>
    </li>
  );
}
