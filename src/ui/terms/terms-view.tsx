'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import type { TermsPage } from '@/contracts/saved-terms';
import { useAttempt } from '@/ui/http/use-attempt';
import type { RuleDone } from '@/ui/levels/rule-done';
import { RuleDoneBar } from '@/ui/levels/rule-done-bar';
import { Notice } from '@/ui/shell/notice';
import { useHolds } from '@/ui/shell/permissions';
import { MarkingsPart } from '@/ui/terms/markings-part';
import { OdrlPart } from '@/ui/terms/odrl-part';
import { RulesPart } from '@/ui/terms/rules-part';
import { SavedTermsPart } from '@/ui/terms/saved-terms-part';
import { TermsSide, type OpenRule } from '@/ui/terms/terms-side';
import { WaysPart } from '@/ui/terms/ways-part';
import { defaultLines, limitLines } from '@/ui/words/limit-words';

/** Saved terms, ceilings, defaults and markings: what dispatches are made from, and within. */
export function TermsView({ page }: { readonly page: TermsPage }) {
  const mayChange = useHolds('settings');
  const [open, setOpen] = useState<OpenRule | null>(null);
  const [done, setDone] = useState<RuleDone | null>(null);
  const work = useAttempt();
  const choose = (next: OpenRule) => {
    setOpen(next);
    setDone(null);
  };
  return (
    <main className="work">
      <div className="surface">
        <div className="head">
          <div className="row">
            <h1>Terms</h1>
            <span className="quiet">saved under a name, chosen in Compose</span>
            <span className="gap" />
            {mayChange && (
              <Button
                onClick={() => {
                  choose({ kind: 'terms', row: 'new' });
                }}
              >
                New terms
              </Button>
            )}
          </div>
          <Notice said={work.said} />
        </div>
        <div className="scroll">
          <SavedTermsPart
            terms={page.terms}
            selected={open?.kind === 'terms' ? open.row : null}
            onOpen={(row) => {
              choose({ kind: 'terms', row });
            }}
          />
          <RulesPart
            id="ceilings"
            title="Ceilings"
            what="the most that may be given; they also apply to earlier dispatches"
            none="There are none, so senders may give any rights."
            add="Set a ceiling"
            rules={page.ceilings}
            linesOf={({ limits }) => limitLines(limits)}
            mayChange={mayChange}
            selected={open?.kind === 'ceiling' ? open.row : null}
            onOpen={(row) => {
              choose({ kind: 'ceiling', row });
            }}
          />
          <RulesPart
            id="defaults"
            title="Defaults and watermarks"
            what="the nearest default applies; every watermark applies"
            none="Nothing is set: new dispatches start with Read for 30 days."
            add="Set defaults"
            rules={page.defaults}
            linesOf={defaultLines}
            mayChange={mayChange}
            selected={open?.kind === 'defaults' ? open.row : null}
            onOpen={(row) => {
              choose({ kind: 'defaults', row });
            }}
          />
          <WaysPart
            rules={page.rules}
            mayChange={mayChange}
            selected={open?.kind === 'way' ? open.row : null}
            onOpen={(row) => {
              choose({ kind: 'way', row });
            }}
          />
          <OdrlPart mayChange={mayChange} attempt={work.attempt} busy={work.busy} />
          <MarkingsPart markings={page.markings} mayChange={mayChange} attempt={work.attempt} />
        </div>
      </div>
      <TermsSide
        open={open}
        page={page}
        mayChange={mayChange}
        work={work}
        onDone={(made) => {
          setDone(made);
          setOpen(null);
        }}
      />
      <RuleDoneBar
        done={done}
        onGone={() => {
          setDone(null);
        }}
        attempt={work.attempt}
        busy={work.busy}
      />
    </main>
  );
}
