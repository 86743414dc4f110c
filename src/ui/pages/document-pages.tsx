'use client';

import {
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
  type ComponentProps,
  type ReactNode,
} from 'react';
import { GoToPageProvider } from '@/ui/pages/go-to-page';
import { FoundList } from '@/ui/pages/found-list';
import { OutlineList } from '@/ui/pages/outline-list';
import { PageFrame } from '@/ui/pages/page-frame';
import type { PageSize, TextFor } from '@/ui/pages/page-source';
import type { OnRefused } from '@/ui/pages/refused';
import { PageWords } from '@/ui/pages/page-words';
import { PagesSide, type Side } from '@/ui/pages/pages-side';
import { PagesToolbar } from '@/ui/pages/pages-toolbar';
import { Thumbnails } from '@/ui/pages/thumbnails';
import { showPage, useCurrentPage } from '@/ui/pages/use-current-page';
import { useFind } from '@/ui/pages/use-find';
import {
  boundedZoom,
  nextZoom,
  scaleOf,
  usePageView,
  zoomOf,
  type PageView,
} from '@/ui/pages/use-page-view';
import { usePagesKeys, type PagesKeys } from '@/ui/pages/use-pages-keys';
import { useReadingTimes } from '@/ui/pages/use-reading-times';
import { useRoom } from '@/ui/pages/use-room';
import { useZoomGestures } from '@/ui/pages/use-zoom-gestures';
import { useWords } from '@/ui/words/use-words';

/** An A4 page, until the first one says how large pages are. */
const A4: PageSize = { width: 595, height: 842 };

type Props = {
  readonly pages: number;
  readonly text: TextFor;
  /** Under which this browser keeps where one is; null: it does not. */
  readonly keptAs: string | null;
  readonly isCovered: boolean;
  readonly onRefused: OnRefused;
  /** What lies over a page beside what is found on it. */
  readonly over?: (page: number) => ReactNode;
  /** What stands beside the pages. */
  readonly aside: ReactNode;
};

/** The pages of a document with all that one does to look at them. */
export function DocumentPages({ pages, text, keptAs, isCovered, onRefused, over, aside }: Props) {
  const { say } = useWords();
  const list = useRef<HTMLElement>(null);
  const findField = useRef<HTMLInputElement>(null);
  const [view, change] = usePageView(keptAs, pages);
  const [side, setSide] = useState<Side | null>(null);
  const [isWords, setWords] = useState(false);
  const [typical, setTypical] = useState<PageSize | null>(null);
  const room = useRoom(list);
  const size = typical ?? A4;
  const scale = scaleOf(view, size, room);
  const zoom = zoomOf(scale);
  const onSize = useCallback((drawn: PageSize) => {
    setTypical((known) => known ?? drawn);
  }, []);

  const goTo = useCallback(
    (page: number) => {
      change({ page });
      // The page may have to be laid out first.
      requestAnimationFrame(() => {
        showPage(list, page);
      });
    },
    [change],
  );
  const seen = useCallback(
    (page: number) => {
      change({ page });
    },
    [change],
  );
  useCurrentPage(list, seen, !view.single && !isWords);
  const begun = useRef(false);
  useEffect(() => {
    if (begun.current || typical === null) return;
    begun.current = true;
    if (view.page > 1) showPage(list, view.page);
  }, [typical, view.page]);

  const find = useFind(goTo, onRefused);
  const zoomBy = useCallback(
    (factor: number) => {
      change({ zoom: boundedZoom(zoom * factor) });
    },
    [change, zoom],
  );
  useZoomGestures(list, scale, zoomBy);
  useReadingTimes(list, isCovered);
  const fullScreen = useCallback(() => {
    if (document.fullscreenElement === null)
      void list.current
        ?.closest('.reader')
        ?.requestFullscreen()
        .catch(() => undefined);
    else void document.exitFullscreen();
  }, []);
  usePagesKeys(useKeys({ view, zoom, pages, change, goTo, find, fullScreen, findField }));

  return (
    <>
      <PagesToolbar
        pages={pages}
        view={view}
        zoom={zoom}
        onView={change}
        onPage={goTo}
        find={find}
        findField={findField}
        isSideOpen={side !== null}
        onSide={() => {
          setSide(side === null ? 'pages' : null);
        }}
        onFullScreen={fullScreen}
        isWords={isWords}
        onWords={text === 'nothing' ? null : setWords}
      />
      <div className={side === null ? 'body' : 'body with-side'}>
        {side !== null && (
          <PagesSide side={side} onSide={setSide}>
            {side === 'pages' && (
              <Thumbnails
                pages={pages}
                current={view.page}
                typical={size}
                onPage={goTo}
                onRefused={onRefused}
              />
            )}
            {side === 'outline' && (
              <OutlineList hasText={text !== 'nothing'} current={view.page} onPage={goTo} />
            )}
            {side === 'found' && <FoundList find={find} pages={pages} />}
          </PagesSide>
        )}
        <main
          ref={list}
          className={isCovered ? 'pages unseen' : 'pages'}
          tabIndex={0}
          aria-label={say('pages.label')}
        >
          <Shown
            view={view}
            pages={pages}
            isWords={isWords}
            text={text}
            scale={scale}
            typical={size}
            onSize={onSize}
            onRefused={onRefused}
            find={find}
            over={over ?? null}
          />
        </main>
        <GoToPageProvider value={goTo}>{aside}</GoToPageProvider>
      </div>
    </>
  );
}

/** The pages that are laid out: all, the one in view, or that one as its words alone. */
function Shown({
  view,
  pages,
  isWords,
  find,
  ...page
}: Omit<ComponentProps<typeof PageFrame>, 'page' | 'turned' | 'hits'> & {
  readonly view: PageView;
  readonly pages: number;
  readonly isWords: boolean;
  readonly find: ReturnType<typeof useFind>;
}) {
  const { text, onRefused } = page;
  if (isWords && text !== 'nothing')
    return <PageWords page={view.page} isAloudOnly={text === 'aids'} onRefused={onRefused} />;
  const shown = view.single ? [view.page] : Array.from({ length: pages }, (_each, i) => i + 1);
  return shown.map((number) => (
    <PageFrame
      key={number}
      {...page}
      page={number}
      turned={view.turned}
      hits={find.hitsOn(number)}
    />
  ));
}

function useKeys({
  view,
  zoom,
  pages,
  change,
  goTo,
  find,
  fullScreen,
  findField,
}: {
  readonly view: PageView;
  readonly zoom: number;
  readonly pages: number;
  readonly change: (change: Partial<PageView>) => void;
  readonly goTo: (page: number) => void;
  readonly find: ReturnType<typeof useFind>;
  readonly fullScreen: () => void;
  readonly findField: React.RefObject<HTMLInputElement | null>;
}): PagesKeys {
  const { page, turned, single } = view;
  return useMemo(() => {
    const to = { before: page - 1, after: page + 1, first: 1, last: pages };
    return {
      larger: () => {
        change({ zoom: nextZoom(zoom, 1) });
      },
      smaller: () => {
        change({ zoom: nextZoom(zoom, -1) });
      },
      fitWidth: () => {
        change({ zoom: 'fit-width' });
      },
      fitPage: () => {
        change({ zoom: 'fit-page' });
      },
      turn: () => {
        change({ turned: ((turned + 1) % 4) as PageView['turned'] });
      },
      single: () => {
        change({ single: !single });
      },
      fullScreen,
      find: () => {
        findField.current?.focus();
        findField.current?.select();
      },
      nextPlace: find.step,
      page: single
        ? (where) => {
            goTo(Math.max(1, Math.min(pages, to[where])));
          }
        : null,
    };
  }, [page, turned, single, zoom, pages, change, goTo, find, fullScreen, findField]);
}
