'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import { paragraphsOf } from '@/core/content/paragraphs';
import type { OnRefused } from '@/ui/pages/refused';
import { usePageText } from '@/ui/pages/use-page-text';
import { useWords } from '@/ui/words/use-words';

/** Sizes of letters, in parts of what the browser is set to. */
const SIZES = [1, 1.25, 1.5, 2, 2.5, 3] as const;

/** A page as its words alone, in lines as long as there is room, as large as they are wanted. */
export function PageWords({
  page,
  isAloudOnly,
  onRefused,
}: {
  readonly page: number;
  readonly isAloudOnly: boolean;
  readonly onRefused: OnRefused;
}) {
  const { say } = useWords();
  const [at, setAt] = useState(1);
  const { pieces, handlers } = usePageText(page, isAloudOnly, onRefused);
  const size = SIZES[at] ?? 1;
  return (
    <article
      className={isAloudOnly ? 'words-only aloud' : 'words-only'}
      data-page={page}
      data-testid="page-words"
      {...handlers}
    >
      <p className="sizes">
        <span className="quiet">{say('pages.page', { page: String(page) })}</span>
        <Button
          size="small"
          disabled={at === 0}
          onClick={() => {
            setAt(at - 1);
          }}
        >
          {say('pages.smallerText')}
        </Button>
        <Button
          size="small"
          disabled={at === SIZES.length - 1}
          onClick={() => {
            setAt(at + 1);
          }}
        >
          {say('pages.largerText')}
        </Button>
      </p>
      <div style={{ fontSize: `${String(size)}rem` }}>
        {pieces === null && <p role="status">{say('opening')}</p>}
        {pieces?.length === 0 && <p>{say('pages.noText')}</p>}
        {paragraphsOf(pieces ?? []).map((paragraph, i) => (
          <p key={i} dir="auto">
            {paragraph}
          </p>
        ))}
      </div>
    </article>
  );
}
