'use client';

import { useEffect, useRef } from 'react';
import { usePicture } from '@/ui/pages/use-picture';
import { useNear } from '@/ui/pages/use-near';
import type { PageSize } from '@/ui/pages/page-source';
import type { OnRefused } from '@/ui/pages/refused';
import { useWords } from '@/ui/words/use-words';

/** Width of a small picture, in px: twice what it is shown at. */
const WIDTH = 240;

type Props = {
  readonly pages: number;
  readonly current: number;
  readonly typical: PageSize;
  readonly onPage: (page: number) => void;
  readonly onRefused: OnRefused;
};

/** All pages, small, to go to. */
export function Thumbnails({ pages, current, typical, onPage, onRefused }: Props) {
  const list = useRef<HTMLOListElement>(null);
  useEffect(() => {
    list.current
      ?.querySelector('[aria-current="page"]')
      ?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [current]);
  return (
    <ol ref={list} className="thumbnails">
      {Array.from({ length: pages }, (_each, i) => (
        <Thumbnail
          key={i}
          page={i + 1}
          isCurrent={current === i + 1}
          typical={typical}
          onPage={onPage}
          onRefused={onRefused}
        />
      ))}
    </ol>
  );
}

function Thumbnail({
  page,
  isCurrent,
  typical,
  onPage,
  onRefused,
}: Omit<Props, 'pages' | 'current'> & { readonly page: number; readonly isCurrent: boolean }) {
  const { say } = useWords();
  const frame = useRef<HTMLLIElement>(null);
  const near = useNear(frame, false);
  const { picture } = usePicture({ page, width: WIDTH }, near, onRefused);
  const { width, height } = picture?.points ?? typical;
  return (
    <li ref={frame}>
      <button
        type="button"
        aria-label={say('pages.page', { page: String(page) })}
        aria-current={isCurrent ? 'page' : undefined}
        onClick={() => {
          onPage(page);
        }}
      >
        <span
          className="small-page"
          style={{ aspectRatio: `${String(width)} / ${String(height)}` }}
        >
          {picture !== null && <img src={picture.url} alt="" draggable={false} />}
        </span>
        <span className="figure">{page}</span>
      </button>
    </li>
  );
}
