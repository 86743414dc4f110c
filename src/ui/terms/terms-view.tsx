'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import type { CeilingRow } from '@/contracts/ceiling';
import type { DefaultsRow } from '@/contracts/defaults';
import type { SavedTermsRow, TermsPage } from '@/contracts/saved-terms';
import type { RuleRow } from '@/contracts/rules';
import { conditionLines } from '@/core/policy/condition-lines';
import { call } from '@/ui/http/call';
import { useAttempt } from '@/ui/http/use-attempt';
import { Notice } from '@/ui/shell/notice';
import { useHolds } from '@/ui/shell/permissions';
import { CeilingForm } from '@/ui/levels/ceiling-form';
import { DefaultsForm } from '@/ui/levels/defaults-form';
import { MarkingsPart } from '@/ui/terms/markings-part';
import { OdrlPart } from '@/ui/terms/odrl-part';
import { SavedTermsForm } from '@/ui/terms/saved-terms-form';
import type { RuleDone } from '@/ui/levels/rule-done';
import { RulesPart } from '@/ui/terms/rules-part';
import { WayForm, WaysPart } from '@/ui/terms/ways-part';
import { Moment } from '@/ui/time/moment';
import { defaultLines, limitLines } from '@/ui/words/limit-words';
import { rightsLine } from '@/core/policy/rights-line';

/** What stands in the side panel. */
type Open =
  | { readonly kind: 'terms'; readonly row: SavedTermsRow | 'new' }
  | { readonly kind: 'ceiling'; readonly row: CeilingRow | 'new' }
  | { readonly kind: 'defaults'; readonly row: DefaultsRow | 'new' }
  | { readonly kind: 'way'; readonly row: RuleRow };

/** Saved terms, ceilings, defaults and markings: what dispatches are made from, and within. */
export function TermsView({ page }: { readonly page: TermsPage }) {
  const mayChange = useHolds('settings');
  const [open, setOpen] = useState<Open | null>(null);
  const [done, setDone] = useState<RuleDone | null>(null);
  const { said, attempt, busy } = useAttempt();
  const openTerms = (row: SavedTermsRow | 'new') => {
    setOpen({ kind: 'terms', row });
  };
  const openRule = (next: Open) => {
    setOpen(next);
    setDone(null);
  };
  const made = (rule: RuleDone) => {
    setDone(rule);
    setOpen(null);
  };
  const openRow = open === null || open.row === 'new' ? null : open.row;
  const ruleKey =
    open === null || open.kind === 'terms' || open.kind === 'way' || open.row === 'new'
      ? 'new'
      : `${open.row.level} ${open.row.subject}`;
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
                  openTerms('new');
                }}
              >
                New terms
              </Button>
            )}
          </div>
          <Notice said={said} />
          {done !== null && (
            <p role="status" className="notice above-8">
              {done.text}{' '}
              <Button
                variant="text"
                disabled={busy}
                onClick={() => {
                  setDone(null);
                  void attempt(done.undo, 'Undone.');
                }}
              >
                Undo
              </Button>
            </p>
          )}
        </div>
        <div className="scroll">
          {page.terms.length === 0 ? (
            <div className="empty">
              <h2>No saved terms yet</h2>
              <p>
                Save the terms you use often: what people may do, for how long, and the watermark on
                every page.
              </p>
            </div>
          ) : (
            <table className="list">
              <thead>
                <tr>
                  <th>Name</th>
                  <th>They may</th>
                  <th>For</th>
                  <th className="number">In use</th>
                  <th>Watermark</th>
                  <th>Changed</th>
                </tr>
              </thead>
              <tbody>
                {page.terms.map((row) => (
                  <tr key={row.id} aria-selected={openRow === row}>
                    <td>
                      <button
                        type="button"
                        className="row-button"
                        onClick={() => {
                          openTerms(row);
                        }}
                      >
                        {row.name}
                      </button>
                    </td>
                    <td>
                      {rightsLine(row.rights, row.prints)}
                      {conditionLines(row.conditions, 'their zone').map((line) => (
                        <span key={line} className="quiet">
                          ; {line}
                        </span>
                      ))}
                    </td>
                    <td>
                      {row.days === null ? (
                        <span className="lamp">no end</span>
                      ) : (
                        `${String(row.days)} ${row.days === 1 ? 'day' : 'days'}`
                      )}
                    </td>
                    <td className="number" title="People who have access with these terms">
                      {row.uses}
                    </td>
                    <td className="oneline quiet" title={row.watermark}>
                      {row.watermark === '' ? 'none' : row.watermark}
                    </td>
                    <td>
                      <Moment at={row.changedAt} />{' '}
                      <span className="quiet">by {row.changedBy}</span>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          <RulesPart
            title="Ceilings"
            what="the most that may be given; they also apply to earlier dispatches"
            none="There are none, so senders may give any rights."
            add="Set a ceiling"
            rules={page.ceilings}
            linesOf={({ limits }) => limitLines(limits)}
            mayChange={mayChange}
            selected={open?.kind === 'ceiling' && open.row !== 'new' ? open.row : null}
            onOpen={(row) => {
              openRule({ kind: 'ceiling', row });
            }}
          />
          <RulesPart
            title="Defaults and watermarks"
            what="the nearest default applies; every watermark applies"
            none="Nothing is set: new dispatches start with Read for 30 days."
            add="Set defaults"
            rules={page.defaults}
            linesOf={defaultLines}
            mayChange={mayChange}
            selected={open?.kind === 'defaults' && open.row !== 'new' ? open.row : null}
            onOpen={(row) => {
              openRule({ kind: 'defaults', row });
            }}
          />
          <WaysPart
            rules={page.rules}
            mayChange={mayChange}
            selected={open?.kind === 'way' ? open.row : null}
            onOpen={(row) => {
              openRule({ kind: 'way', row });
            }}
          />
          <OdrlPart mayChange={mayChange} attempt={attempt} busy={busy} />
          <MarkingsPart markings={page.markings} mayChange={mayChange} attempt={attempt} />
        </div>
      </div>
      <aside className="side" aria-label="The selected terms">
        {open === null && (
          <p className="quiet">
            Select terms or a rule to see its details.
            {mayChange ? '' : ' An administrator changes them.'}
          </p>
        )}
        {open?.kind === 'ceiling' && (
          <CeilingForm
            key={ruleKey}
            of={open.row === 'new' ? null : open.row}
            page={page}
            mayChange={mayChange}
            attempt={attempt}
            busy={busy}
            onDone={made}
          />
        )}
        {open?.kind === 'defaults' && (
          <DefaultsForm
            key={ruleKey}
            of={open.row === 'new' ? null : open.row}
            page={page}
            mayChange={mayChange}
            attempt={attempt}
            busy={busy}
            onDone={made}
          />
        )}
        {open?.kind === 'way' && (
          <WayForm
            key={`${open.row.way} ${String(open.row.setAt)}`}
            rule={open.row}
            attempt={attempt}
            busy={busy}
            onDone={made}
          />
        )}
        {open?.kind === 'terms' && (
          <SavedTermsForm
            key={open.row === 'new' ? 'new' : open.row.id}
            row={open.row === 'new' ? null : open.row}
            mayChange={mayChange}
            attempt={attempt}
            busy={busy}
            onSave={async (fields, followed) => {
              const was = open.row === 'new' ? null : open.row;
              if (
                !(await attempt(
                  () => call('POST', '/api/v1/terms', fields),
                  fields.reachBack ? undefined : `“${fields.name}” is saved. ${followed}`,
                ))
              )
                return;
              setOpen(null);
              if (fields.reachBack && was !== null)
                setDone({
                  text: `“${fields.name}” is saved. ${followed}`,
                  undo: () =>
                    call('POST', '/api/v1/terms', {
                      id: was.id,
                      name: was.name,
                      rights: was.rights,
                      prints: was.prints,
                      days: was.days,
                      watermark: was.watermark,
                      conditions: was.conditions,
                      reachBack: true,
                    }),
                });
            }}
            onRemove={async (row) => {
              if (
                await attempt(
                  () => call('DELETE', `/api/v1/terms/${row.id}`),
                  `“${row.name}” is removed. Earlier dispatches stay as they were.`,
                )
              )
                setOpen(null);
            }}
          />
        )}
      </aside>
    </main>
  );
}
