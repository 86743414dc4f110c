'use client';

import Link from 'next/link';
import Button from '@mui/material/Button';
import type { DocumentId } from '@/core/base/ids';
import type { SharedWith } from '@/contracts/reader';
import { LanguageChoice } from '@/ui/reader/language-choice';
import { NotAmong } from '@/ui/reader/picked-file';
import { ReaderBrand } from '@/ui/shell/reader-brand';
import { SharedRow } from '@/ui/reader/shared-row';
import { FormattedText } from '@/ui/words/formatted-text';
import { useWords } from '@/ui/words/use-words';

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
  const { say } = useWords();
  return (
    <main className="entry shared">
      <ReaderBrand />
      <h1>
        {say('shared.heading', {
          sender: shared.sender?.name ?? say('theSender'),
          organisation: shared.sender?.organisation ?? '',
          count: shared.documents.length,
        })}
      </h1>
      <p className="quiet above-6">
        {say('shared.hereAs', { address: shared.address })}{' '}
        <Button variant="text" onClick={onLeave}>
          {say('prove.other')}
        </Button>
      </p>
      {shared.note !== '' && (
        <div className="note" dir="auto">
          <FormattedText text={shared.note} />
        </div>
      )}
      <NotAmong documents={shared.documents} />
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
      <p className="quiet above-10">
        <Link href="/r/sent" prefetch={false}>
          {say('shared.whole')}
        </Link>
      </p>
      <LanguageChoice />
    </main>
  );
}
