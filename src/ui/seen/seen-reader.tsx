'use client';

import { useMemo, type ReactNode } from 'react';
import type { SeenAs } from '@/contracts/explain';
import { DocumentPages } from '@/ui/pages/document-pages';
import { PageSourceProvider } from '@/ui/pages/page-source';
import { checkSource } from '@/ui/seen/check-source';
import { RightsFound } from '@/ui/why/why-panel';
import { Mark } from '@/ui/marks/mark';
import { Moment } from '@/ui/time/moment';
import { en } from '@/words/reader/en';

type Props = Pick<SeenAs, 'explained' | 'document' | 'person' | 'watermark'> & {
  readonly at: number | null;
  readonly network: string | null;
  /** How to leave. */
  readonly leave: ReactNode;
  /** The same under other circumstances. */
  readonly otherCase: ReactNode;
};

/** The reader as a recipient has it, with every reason beside it; it is a check, and counts for nobody. */
export function SeenReader(props: Props) {
  const { explained, document, person, watermark, at, network, leave, otherCase } = props;
  const source = useMemo(
    () => checkSource(document.id, { person, watermark, at, network }),
    [document.id, person, watermark, at, network],
  );
  const mayCopy = explained.rights.some(
    ({ right, verdict }) => right === 'copy' && verdict?.granted === true,
  );
  const text = mayCopy ? 'copying' : explained.readingAids ? 'aids' : 'nothing';
  return (
    <PageSourceProvider value={source}>
      <div className="reader seen-as">
        <header>
          <div>
            <h1>{document.title}</h1> <span className="figure quiet">{document.reference}</span>
            <div className="quiet small">
              as {person.name === '' ? person.address : `${person.name}, ${person.address}`} · a
              check: recorded under your name, counted for nobody
            </div>
          </div>
          <span className="gap" />
          <div className="small">
            {explained.opens && explained.until !== null && (
              <>
                until <Moment at={explained.until} named />
              </>
            )}
          </div>
          {leave}
        </header>
        {explained.opens ? (
          <DocumentPages
            pages={document.pages}
            text={text}
            keptAs={null}
            isCovered={false}
            onRefused={NOTHING}
            aside={<Reasons explained={explained} otherCase={otherCase} />}
          />
        ) : (
          <div className="body">
            <Refused explained={explained} />
            <Reasons explained={explained} otherCase={otherCase} />
          </div>
        )}
      </div>
    </PageSourceProvider>
  );
}

function NOTHING(): void {
  // A check is refused nothing while it lasts: what the recipient would be refused is said beside it.
}

function Reasons({ explained, otherCase }: Pick<Props, 'explained' | 'otherCase'>) {
  return (
    <aside aria-label="What they may do" data-open>
      <div className="stack">
        <h2>What they may do</h2>
        <RightsFound found={explained} />
        {otherCase}
      </div>
    </aside>
  );
}

/** The refusal that they would be shown. */
function Refused({ explained: { reason } }: Pick<Props, 'explained'>) {
  const words = en.reasons[reason ?? 'not-addressed'];
  return (
    <div className="blank">
      <div className="stack">
        <p className="row magenta">
          <Mark kind="refused" /> Not opened
        </p>
        <h2>{words.title}</h2>
        <p>{words.next}</p>
      </div>
    </div>
  );
}
