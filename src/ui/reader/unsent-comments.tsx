'use client';

import { useEffect, useState } from 'react';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import type { DocumentId } from '@/core/base/ids';
import { forgetComment, keptComments, type KeptComment } from '@/ui/own-machine/kept-comments';
import { COMMENTS_HANDED_IN } from '@/ui/reader/comments-handed-in';
import { useWords } from '@/ui/words/use-words';

/** What was written about a document without a connection, and could not be handed in: it is not lost. */
export function UnsentComments({
  document,
  address,
}: {
  readonly document: DocumentId;
  readonly address: string;
}) {
  const { say } = useWords();
  const [unsent, setUnsent] = useState<readonly KeptComment[]>([]);
  useEffect(() => {
    const look = () => {
      keptComments().then(
        (all) => {
          setUnsent(
            all.filter(
              (each) => each.isRefused && each.document === document && each.address === address,
            ),
          );
        },
        () => undefined,
      );
    };
    look();
    window.addEventListener(COMMENTS_HANDED_IN, look);
    return () => {
      window.removeEventListener(COMMENTS_HANDED_IN, look);
    };
  }, [document, address]);
  return unsent.map(({ id, page, text }) => (
    <div key={id} className="stack tight">
      <TextField
        label={say('comments.unsent', { page: String(page) })}
        multiline
        value={text}
        helperText={say('comments.unsentHint')}
        slotProps={{ htmlInput: { readOnly: true } }}
      />
      <div>
        <Button
          size="small"
          variant="text"
          onClick={() => {
            setUnsent(unsent.filter((each) => each.id !== id));
            void forgetComment(id);
          }}
        >
          {say('comments.remove')}
        </Button>
      </div>
    </div>
  ));
}
