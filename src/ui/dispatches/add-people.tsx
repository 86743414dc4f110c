'use client';

import { useState } from 'react';
import Autocomplete from '@mui/material/Autocomplete';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import type { DispatchDetail } from '@/contracts/dispatch';
import { conditionLines } from '@/core/policy/condition-lines';
import { Problem } from '@/ui/shell/notice';
import { RecipientsTable } from '@/ui/recipients/recipients-table';
import type { TermsDraft } from '@/ui/terms-fields/switch-right';
import { TermsFields } from '@/ui/terms-fields/terms-fields';
import { useRecipients } from '@/ui/recipients/use-recipients';
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
  const recipients = useRecipients(undefined);
  const offered = offeredTerms(detail.grants, detail.savedTerms, now);
  const [chosen, setChosen] = useState<OfferedTerms | null>(offered[0] ?? null);
  const begun = stillOpen(
    chosen?.terms ?? { rights: ['read'], from: null, until: now, prints: null },
    now,
  );
  const [terms, setTerms] = useState<TermsDraft>(begun.terms);
  const [said, setSaid] = useState<string | null>(begun.said);
  const choose = (each: OfferedTerms) => {
    const next = stillOpen(each.terms, now);
    setChosen(each);
    setTerms(next.terms);
    setSaid(next.said);
  };
  const { busy, problem, attempt } = useAttempt();
  const { people, domains, unreadable } = recipients;
  const added = people.length + domains.length;
  const send = async () => {
    const well = await attempt(() =>
      api('POST /api/v1/dispatches/:id/people', {
        id: detail.id,
        recipients: people.map(({ address, name, organisation, terms: own }) => ({
          address,
          name,
          organisation,
          terms: own,
        })),
        domains: domains.map(({ domain }) => domain),
        terms,
      }),
    );
    if (well) onDone();
  };
  return (
    <section className="stack loose add-people" aria-label="Add people">
      <TextField
        label="Email addresses"
        multiline
        minRows={2}
        maxRows={5}
        autoFocus
        value={recipients.text}
        onChange={(event) => {
          recipients.setText(event.target.value);
        }}
        placeholder="Type or paste email addresses, separated by commas, spaces or lines"
      />
      {added > 0 && <RecipientsTable recipients={recipients} terms={terms} />}
      <TermsToStartFrom offered={offered} chosen={chosen} terms={terms} onChoose={choose} />
      <TermsFields terms={terms} onChange={setTerms} said={said} onSaid={setSaid} />
      <Unreadable parts={unreadable} />
      <Problem words={problem} />
      <div className="row">
        <Button
          variant="contained"
          disabled={busy || added === 0 || unreadable.length > 0}
          onClick={() => void send()}
        >
          {added < 2 ? 'Add to this dispatch' : `Add ${String(added)} to this dispatch`}
        </Button>
        <Button onClick={onDone}>Leave it</Button>
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

/** Terms to start from: those of most people of the dispatch, of one of them, or saved ones. */
function TermsToStartFrom({
  offered,
  chosen,
  terms,
  onChoose,
}: {
  readonly offered: readonly OfferedTerms[];
  readonly chosen: OfferedTerms | null;
  readonly terms: TermsDraft;
  readonly onChoose: (each: OfferedTerms) => void;
}) {
  return (
    <Autocomplete
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

function Unreadable({ parts }: { readonly parts: readonly string[] }) {
  if (parts.length === 0) return null;
  return (
    <p className="magenta">
      Not an email address: {parts.slice(0, 5).join(', ')}
      {parts.length > 5 && ` and ${String(parts.length - 5)} more`}
    </p>
  );
}
