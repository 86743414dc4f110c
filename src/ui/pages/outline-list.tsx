'use client';

import { useEffect, useState } from 'react';
import type { OutlineLine } from '@/contracts/reader';
import { usePageSource } from '@/ui/pages/page-source';
import { useWords } from '@/ui/words/use-words';

type Props = {
  /** Whether text of the document may reach this browser. */
  readonly hasText: boolean;
  readonly current: number;
  readonly onPage: (page: number) => void;
};

/** The outline that the document brings. It is text of the document, so it goes with copying. */
export function OutlineList({ hasText, current, onPage }: Props) {
  const { say } = useWords();
  const source = usePageSource();
  const [lines, setLines] = useState<readonly OutlineLine[] | null>(null);
  useEffect(() => {
    if (!hasText) return undefined;
    let isCurrent = true;
    source.outline().then(
      (found) => {
        if (isCurrent) setLines(found);
      },
      () => {
        if (isCurrent) setLines([]);
      },
    );
    return () => {
      isCurrent = false;
    };
  }, [source, hasText]);
  if (!hasText) return <p className="quiet">{say('pages.outlineIsText')}</p>;
  if (lines === null) return <p className="quiet">{say('pages.looking')}</p>;
  if (lines.length === 0) return <p className="quiet">{say('pages.noOutline')}</p>;
  const at = lines.findLastIndex(({ page }) => page <= current);
  return (
    <ul className="outline">
      {lines.map(({ title, page, depth }, i) => (
        <li key={i} style={{ paddingInlineStart: depth * 14 }}>
          <button
            type="button"
            aria-current={i === at ? 'true' : undefined}
            onClick={() => {
              onPage(page);
            }}
          >
            <span>{title}</span> <span className="figure quiet">{page}</span>
          </button>
        </li>
      ))}
    </ul>
  );
}
