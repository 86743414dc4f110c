'use client';

import { useEffect, useEffectEvent, useMemo, useState, type ReactNode } from 'react';
import Button from '@mui/material/Button';
import { timeWithoutService } from '@/core/own-machine/kept-licence';
import { OwnFailure } from '@/ui/own-machine/own-worker';
import { CommentsPanel } from '@/ui/comments/comments-panel';
import type { Comments } from '@/ui/comments/comments-state';
import { PageComments } from '@/ui/comments/page-comments';
import type { OfflineReading } from '@/ui/offline/offline-source';
import { AsideToggle } from '@/ui/pages/aside-toggle';
import { DocumentPages } from '@/ui/pages/document-pages';
import { PageSourceProvider, type PageSource } from '@/ui/pages/page-source';
import { RefusedError } from '@/ui/pages/refused';
import { Moment } from '@/ui/time/moment';
import { useCovered } from '@/ui/own-machine/use-covered';
import { useWords } from '@/ui/words/use-words';

/** The same pages; what is over is told as a refusal, which ends the reading. */
function ending(source: PageSource): PageSource {
  const inTime = async <R,>(asked: Promise<R>): Promise<R> => {
    try {
      return await asked;
    } catch (error) {
      if (error instanceof OwnFailure && error.code === 'LICENCE_OVER')
        throw new RefusedError('open-again', null);
      throw error;
    }
  };
  return {
    ...source,
    picture: (wanted, signal) => inTime(source.picture(wanted, signal)),
    text: (page, signal) => inTime(source.text(page, signal)),
  };
}

/** A file that is read without a connection. */
export function OfflineReader({
  reading: { source, pages, kept },
  comments,
  connection,
  onOver,
  onBack,
}: {
  readonly reading: OfflineReading;
  readonly comments: Comments;
  /** What is said where there is one again. */
  readonly connection: ReactNode;
  readonly onOver: (why: unknown) => void;
  readonly onBack: () => void;
}) {
  const { say } = useWords();
  const { about, version } = kept;
  const [isAsideOpen, setAsideOpen] = useState(false);
  const covered = useCovered(about.captureDeterrent);
  const own = useMemo(() => ending(source), [source]);
  const over = useEffectEvent(onOver);
  useEffect(() => {
    // What is on the screen goes when its time does.
    const timer = setInterval(() => {
      try {
        timeWithoutService(kept, Date.now());
      } catch (error) {
        over(error);
      }
    }, 1_000);
    return () => {
      clearInterval(timer);
    };
  }, [kept]);
  return (
    <PageSourceProvider value={own}>
      <div className="reader">
        <header>
          <div>
            <h1 dir="auto">{about.title}</h1>{' '}
            <span className="figure quiet">{about.reference}</span>
            <div className="quiet small">
              {say('reading.from', {
                sender: about.sender,
                organisation: about.organisation,
                address: about.address,
              })}
            </div>
          </div>
          <span className="gap" />
          <div className="narrow-only small">
            <span>
              <Until moment={kept.offlineUntil} />
            </span>
          </div>
          <AsideToggle isOpen={isAsideOpen} onToggle={setAsideOpen} />
          <Button onClick={onBack}>{say('offline.back')}</Button>
        </header>
        {covered && (
          <p role="status" className="notice covered">
            {say('reading.covered', { sender: about.sender })}
          </p>
        )}
        <DocumentPages
          pages={pages}
          text={about.mayHaveText}
          keptAs={version}
          isCovered={covered}
          onRefused={() => {
            onOver(new OwnFailure('LICENCE_OVER'));
          }}
          over={(page) => <PageComments page={page} comments={comments} />}
          aside={
            <Aside kept={kept} comments={comments} connection={connection} isOpen={isAsideOpen} />
          }
        />
        <p className="on-paper-only">{say('reading.notToPrint')}</p>
      </div>
    </PageSourceProvider>
  );
}

function Until({ moment }: { readonly moment: number }) {
  const { say } = useWords();
  return say.rich('offline.reading', { end: () => <Moment at={moment} named /> });
}

/** Until when, and what becomes of what is noted. */
function Aside({
  kept: { about, offlineUntil },
  comments,
  connection,
  isOpen,
}: {
  readonly kept: OfflineReading['kept'];
  readonly comments: Comments;
  readonly connection: ReactNode;
  readonly isOpen: boolean;
}) {
  const { say } = useWords();
  return (
    <aside aria-label={say('reading.mayDo')} data-open={isOpen}>
      <div className="stack">
        {connection}
        <p className="notice">
          <Until moment={offlineUntil} />
        </p>
        <CommentsPanel comments={comments} sees={say('offline.sees', { sender: about.sender })} />
        <p className="quiet">{say('offline.told', { organisation: about.organisation })}</p>
      </div>
    </aside>
  );
}
