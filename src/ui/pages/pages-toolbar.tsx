'use client';

import { useState, type RefObject } from 'react';
import MenuItem from '@mui/material/MenuItem';
import Menu from '@mui/material/Menu';
import { findWords } from '@/ui/pages/found-list';
import type { Find } from '@/ui/pages/use-find';
import { nextZoom, ZOOM_STEPS, type PageView, type Zoom } from '@/ui/pages/use-page-view';
import { useWords } from '@/ui/words/use-words';

type Props = {
  readonly pages: number;
  readonly view: PageView;
  /** As it comes out, of which 1 is the size on paper. */
  readonly zoom: number;
  readonly onView: (change: Partial<PageView>) => void;
  readonly onPage: (page: number) => void;
  readonly find: Find;
  readonly findField: RefObject<HTMLInputElement | null>;
  readonly isSideOpen: boolean;
  readonly onSide: () => void;
  readonly onFullScreen: () => void;
  /** Whether a page is shown as its words alone; `onWords` is null where its text does not come here. */
  readonly isWords: boolean;
  readonly onWords: ((isWords: boolean) => void) | null;
};

/** What one does with pages: go to one, look closer, turn it, find words. */
export function PagesToolbar(props: Props) {
  const { view, zoom, onView, find, findField, isSideOpen, onSide, onFullScreen, pages } = props;
  const { isWords, onWords } = props;
  const { turned, single } = view;
  const { say } = useWords();
  return (
    <div className="toolbar" role="toolbar" aria-label={say('pages.label')}>
      <button type="button" aria-pressed={isSideOpen} onClick={onSide}>
        {say('pages.contents')}
      </button>
      <PageField {...props} />
      <span className="group">
        <button
          type="button"
          aria-label={say('pages.smaller')}
          title={say('pages.smallerKey')}
          onClick={() => {
            onView({ zoom: nextZoom(zoom, -1) });
          }}
        >
          −
        </button>
        <ZoomMenu
          zoom={zoom}
          onZoom={(next) => {
            onView({ zoom: next });
          }}
        />
        <button
          type="button"
          aria-label={say('pages.larger')}
          title={say('pages.largerKey')}
          onClick={() => {
            onView({ zoom: nextZoom(zoom, 1) });
          }}
        >
          +
        </button>
      </span>
      <span className="group wide-only">
        <button
          type="button"
          aria-pressed={single}
          title={say('pages.oneKey')}
          onClick={() => {
            onView({ single: !single });
          }}
        >
          {say('pages.one')}
        </button>
        <button
          type="button"
          aria-label={say('pages.turnLong')}
          title={say('pages.turnKey')}
          onClick={() => {
            onView({ turned: ((turned + 1) % 4) as PageView['turned'] });
          }}
        >
          {say('pages.turn')}
        </button>
        <button type="button" title={say('pages.fullScreenKey')} onClick={onFullScreen}>
          {say('pages.fullScreen')}
        </button>
      </span>
      {onWords !== null && (
        <button
          type="button"
          aria-pressed={isWords}
          onClick={() => {
            onWords(!isWords);
          }}
        >
          {say('pages.words')}
        </button>
      )}
      <span className="gap" />
      <FindField find={find} field={findField} pages={pages} />
    </div>
  );
}

/** Which page is in view, and the way to another. */
function PageField({ pages, view: { page }, onPage }: Props) {
  const { say } = useWords();
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <form
      className="jump"
      onSubmit={(event) => {
        event.preventDefault();
        onPage(Math.max(1, Math.min(pages, Math.floor(Number(typed)) || page)));
        setTyped(null);
      }}
    >
      <button
        type="button"
        aria-label={say('pages.before')}
        disabled={page <= 1}
        onClick={() => {
          onPage(page - 1);
        }}
      >
        ‹
      </button>
      <label>
        <span className="wide-only">{say('pages.pageField')} </span>
        <input
          inputMode="numeric"
          aria-label={say('pages.pageField')}
          value={typed ?? String(page)}
          onChange={(event) => {
            setTyped(event.target.value.replaceAll(/\D/g, ''));
          }}
          onBlur={() => {
            setTyped(null);
          }}
        />{' '}
        {say('pages.ofPages', { pages: String(pages) })}
      </label>
      <button
        type="button"
        aria-label={say('pages.after')}
        disabled={page >= pages}
        onClick={() => {
          onPage(page + 1);
        }}
      >
        ›
      </button>
    </form>
  );
}

function ZoomMenu({
  zoom,
  onZoom,
}: {
  readonly zoom: number;
  readonly onZoom: (zoom: Zoom) => void;
}) {
  const { say } = useWords();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const choose = (next: Zoom) => {
    onZoom(next);
    setAnchor(null);
  };
  const whole = (of: number): number => Math.round(of * 100);
  const percent = (of: number): string => `${String(whole(of))} %`;
  return (
    <>
      <button
        type="button"
        className="figure"
        aria-haspopup="menu"
        aria-expanded={anchor !== null}
        aria-label={say('pages.zoom', { percent: String(whole(zoom)) })}
        onClick={(event) => {
          setAnchor(event.currentTarget);
        }}
      >
        {percent(zoom)}
      </button>
      <Menu
        open={anchor !== null}
        anchorEl={anchor}
        transitionDuration={0}
        onClose={() => {
          setAnchor(null);
        }}
      >
        <MenuItem
          onClick={() => {
            choose('fit-width');
          }}
        >
          {say('pages.fitWidth')}
        </MenuItem>
        <MenuItem
          onClick={() => {
            choose('fit-page');
          }}
        >
          {say('pages.fitPage')}
        </MenuItem>
        {ZOOM_STEPS.map((step) => (
          <MenuItem
            key={step}
            onClick={() => {
              choose(step);
            }}
          >
            {percent(step)}
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}

function FindField({
  find,
  field,
  pages,
}: {
  readonly find: Find;
  readonly field: RefObject<HTMLInputElement | null>;
  readonly pages: number;
}) {
  const { say } = useWords();
  const [typed, setTyped] = useState('');
  const { at, places } = find;
  return (
    <form
      className="words"
      role="search"
      onSubmit={(event) => {
        event.preventDefault();
        if (typed.trim() === find.words.trim() && places.length > 0) find.step(1);
        else find.start(typed);
      }}
    >
      <input
        ref={field}
        type="search"
        aria-label={say('pages.findWords')}
        placeholder={say('pages.findWords')}
        value={typed}
        onChange={({ target }) => {
          setTyped(target.value);
          if (target.value === '') find.start('');
        }}
      />
      {find.words.trim() !== '' && (
        <span role="status" className="quiet small">
          {at === null || places.length === 0
            ? findWords(say, find, pages)
            : say('pages.at', { at: String(at + 1), count: String(places.length) })}
          {at !== null && find.searchingFrom !== null && '…'}
        </span>
      )}
      {places.length > 1 && (
        <>
          <button
            type="button"
            aria-label={say('pages.placeBefore')}
            onClick={() => {
              find.step(-1);
            }}
          >
            ‹
          </button>
          <button
            type="button"
            aria-label={say('pages.placeAfter')}
            onClick={() => {
              find.step(1);
            }}
          >
            ›
          </button>
        </>
      )}
    </form>
  );
}
