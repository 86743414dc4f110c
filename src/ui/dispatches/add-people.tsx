'use client';

import { useState } from 'react';
import Autocomplete from '@mui/material/Autocomplete';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import type { DispatchDetail } from '@/contracts/dispatch';
import { parsePasted } from '@/core/compose/pasted';
import { addRows, changeTerms, EMPTY_SHEET, type Row } from '@/core/compose/sheet';
import { conditionLines } from '@/core/policy/condition-lines';
import type { Terms } from '@/core/policy/rights';
import { Note, Problem } from '@/ui/shell/notice';
import { AddressBox } from '@/ui/recipients/address-box';
import { pastedRows } from '@/ui/recipients/pasted-rows';
import { addresseesOf } from '@/ui/recipients/addressees';
import { gridColumns } from '@/ui/recipients/grid-columns';
import type { GridDocument } from '@/ui/recipients/grid-view';
import { RecipientsGrid } from '@/ui/recipients/recipients-grid';
import { useFacts } from '@/ui/recipients/use-facts';
import { useGridRows } from '@/ui/recipients/use-grid-rows';
import { useSheet } from '@/ui/recipients/use-sheet';
import { offeredTerms, stillOpen, type OfferedTerms } from '@/ui/dispatches/offered-terms';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';

/** Adds people to a dispatch, on terms that are chosen: those of most of its people, of one of them, or saved ones. */
export function AddPeople({
  detail,
  now,
  onDone,
}: {
  readonly detail: DispatchDetail;
  readonly now: number;
  readonly onDone: () => void;
}) {
  const offered = offeredTerms(detail.grants, detail.savedTerms, now);
  const [chosen, setChosen] = useState<OfferedTerms | null>(offered[0] ?? null);
  const begun = stillOpen(
    chosen?.terms ?? { rights: ['read'], from: null, until: now, prints: null },
    now,
  );
  const [said, setSaid] = useState<string | null>(begun.said);
  const work = useSheet({ ...EMPTY_SHEET, common: begun.terms }, () => begun.terms);
  const facts = useFacts(work.sheet.rows);
  const rows = useGridRows(work, facts, null);
  const documents = documentsOf(detail);
  const choose = (each: OfferedTerms) => {
    const next = stillOpen(each.terms, now);
    setChosen(each);
    setSaid(next.said);
    work.change((sheet) => changeTerms(sheet, work.common, 'common', () => next.terms));
  };
  const add = (added: readonly Row[]) => {
    work.change((sheet) => addRows(sheet, added));
  };
  const { busy, problem, attempt } = useAttempt();
  const send = async () => {
    const { recipients, groups, domains } = addresseesOf(rows, work.common);
    const well = await attempt(() =>
      api('POST /api/v1/dispatches/:id/people', {
        id: detail.id,
        recipients,
        groups,
        domains,
        terms: work.common,
      }),
    );
    if (well) onDone();
  };
  return (
    <section className="stack loose add-people" aria-label="Add people">
      <div className="row one-row top">
        <AddressBox autoFocus onAdd={add} />
        <TermsToStartFrom offered={offered} chosen={chosen} terms={work.common} onChoose={choose} />
      </div>
      <div className="add-people-grid">
        <RecipientsGrid
          work={work}
          rows={rows}
          columns={gridColumns({ isClear: false, documents: documents.length })}
          documents={documents}
          now={now}
          order={null}
          onOrder={ignore}
          concernOf={(key) => (facts(key)?.blocked === true ? 'stops' : null)}
          onPaste={(text) => {
            add(pastedRows(parsePasted(text)));
          }}
          onPlace={ignore}
        />
      </div>
      {said !== null && <Note role="status">{said}</Note>}
      <Problem words={problem} />
      <div className="row">
        <Button
          variant="contained"
          disabled={busy || rows.length === 0}
          onClick={() => void send()}
        >
          {rows.length < 2 ? 'Add to this dispatch' : `Add ${String(rows.length)} to this dispatch`}
        </Button>
        <Button onClick={onDone}>Cancel</Button>
        <span className="quiet">
          {detail.delivery === 'mail'
            ? 'They are mailed the message with their link. '
            : 'Their links are shown at the side. '}
          Nobody else changes.
        </span>
      </div>
    </section>
  );
}

/** The rows are few and stand as they came. */
function ignore(): void {
  // Nothing follows from it here.
}

/** The documents that a dispatch carries. */
function documentsOf({ grants }: DispatchDetail): GridDocument[] {
  return [
    ...new Map(
      grants.map(({ documentId, documentTitle, documentReference }) => [
        documentId,
        { id: documentId, title: documentTitle, reference: documentReference },
      ]),
    ).values(),
  ];
}

/** Terms to start from: those of most people of the dispatch, of one of them, or saved ones. */
function TermsToStartFrom({
  offered,
  chosen,
  terms,
  onChoose,
}: {
  readonly offered: readonly OfferedTerms[];
  readonly chosen: OfferedTerms | null;
  readonly terms: Terms;
  readonly onChoose: (each: OfferedTerms) => void;
}) {
  return (
    <Autocomplete
      className="start-terms"
      disableClearable
      options={offered}
      value={chosen ?? undefined}
      groupBy={({ group }) => group}
      getOptionLabel={({ label }) => label}
      getOptionKey={({ key }) => key}
      isOptionEqualToValue={(option, value) => option.key === value.key}
      onChange={(_event, each) => {
        onChoose(each);
      }}
      renderInput={(params) => (
        <TextField
          {...params}
          label="Start from terms"
          helperText={conditionLines(terms.conditions, 'their zone').join('; ')}
        />
      )}
    />
  );
}
