'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import type { TodayPage } from '@/contracts/today';
import { counted } from '@/core/base/counted';
import type { DocumentId, RecipientId } from '@/core/base/ids';
import { ConsentRows } from '@/ui/consents/consent-rows';
import { ChipLink } from '@/ui/shell/chips';
import { Moment } from '@/ui/time/moment';
import { RefusedSection } from '@/ui/today/refused-section';
import { RequestsSection } from '@/ui/today/requests-section';
import {
  ElsewhereSection,
  EndingSection,
  SilentSection,
  UndeliveredSection,
  WarningsSection,
} from '@/ui/today/today-sections';
import { WhyPanel } from '@/ui/why/why-panel';

const whoseWords: Record<TodayPage['of'], string> = {
  all: 'All',
  own: 'Yours',
  others: 'Others',
};

function thingsOf(page: TodayPage): number {
  const { warnings, requests, consents, elsewhere, refused, ending, silent, undelivered } = page;
  const all = [warnings, requests, consents, elsewhere, refused, ending, silent, undelivered];
  return all.reduce((sum, things) => sum + things.length, 0);
}

/** Whose refusal is being explained. */
type Asked = { readonly recipient: RecipientId; readonly document: DocumentId };

/** What needs somebody now; each row leads to where it is dealt with. */
export function TodayView({ page }: { readonly page: TodayPage }) {
  const [asked, setAsked] = useState<Asked | null>(null);
  return (
    <main className={asked === null ? 'work wide' : 'work'}>
      <div className="surface">
        <TodayHead page={page} />
        <div className="scroll part-body">
          <WarningsSection warnings={page.warnings} />
          {page.consents.length > 0 && (
            <section aria-label="Needs a second person" className="today">
              <h2>
                Needs a second person <span className="figure">{page.consents.length}</span>
              </h2>
              <ConsentRows consents={page.consents} />
            </section>
          )}
          <RequestsSection requests={page.requests} />
          {page.recorded ? (
            <>
              <RefusedSection
                refused={page.refused}
                onWhy={(recipient, document) => {
                  setAsked({ recipient, document });
                }}
              />
              <ElsewhereSection elsewhere={page.elsewhere} />
            </>
          ) : (
            <p className="quiet">
              Refusals and places of other people’s documents are shown to their owners,
              administrators and auditors.
            </p>
          )}
          <EndingSection ending={page.ending} now={page.now} />
          <SilentSection silent={page.silent} />
          <UndeliveredSection undelivered={page.undelivered} />
        </div>
      </div>
      {asked !== null && (
        <aside className="side" aria-label="Why">
          <div className="row">
            <span className="gap" />
            <Button
              variant="text"
              onClick={() => {
                setAsked(null);
              }}
            >
              Close
            </Button>
          </div>
          <WhyPanel key={`${asked.recipient} ${asked.document}`} {...asked} />
        </aside>
      )}
    </main>
  );
}

function TodayHead({ page }: { readonly page: TodayPage }) {
  const { of, choices, now } = page;
  const count = thingsOf(page);
  return (
    <div className="head">
      <div className="row">
        <h1>Today</h1>
        <span className="quiet">
          {count === 0 ? 'nothing to do' : `${counted(count, 'thing')} to look at`}
        </span>
        <span className="gap" />
        {choices.length > 1 &&
          choices.map((each) => (
            <ChipLink
              key={each}
              href={each === choices[0] ? '/today' : `/today?of=${each}`}
              aria-current={each === of ? 'true' : undefined}
            >
              {whoseWords[each]}
            </ChipLink>
          ))}
        <span className="quiet">
          <Moment at={now} named />
        </span>
      </div>
    </div>
  );
}
