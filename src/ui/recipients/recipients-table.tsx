'use client';

import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableFooter from '@mui/material/TableFooter';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { bareDomain } from '@/core/policy/address';
import { useState } from 'react';
import Button from '@mui/material/Button';
import { PlainField } from '@/ui/forms/plain-field';
import type { TermsDraft } from '@/ui/terms-fields/switch-right';
import { TermsFields } from '@/ui/terms-fields/terms-fields';
import type { DomainDraft, RecipientDraft, Recipients } from '@/ui/recipients/use-recipients';
import { momentText } from '@/core/base/moment-text';
import { useZone } from '@/ui/time/use-zone';
import { whoWords } from '@/ui/words/addressee-words';
import { rightsLine } from '@/core/policy/rights-line';

/** Rows drawn before somebody asks for the rest: a pasted list may have a thousand. */
const SHOWN_AT_FIRST = 60;

/** The people of a dispatch, each with what they may do where that differs from everybody's. */
export function RecipientsTable({
  recipients,
  terms,
}: {
  readonly recipients: Recipients;
  /** Null: it leaves in the clear, and there are none. */ readonly terms: TermsDraft | null;
}) {
  const [open, setOpen] = useState<string | null>(null);
  const [shown, setShown] = useState(SHOWN_AT_FIRST);
  return (
    <Table className="list flush" aria-label="Recipients">
      <TableHead>
        <TableRow>
          <TableCell>Person</TableCell>
          <TableCell>Organisation</TableCell>
          <TableCell>May</TableCell>
          <TableCell />
        </TableRow>
      </TableHead>
      <TableBody>
        {recipients.domains.map((each) => (
          <DomainRow
            key={each.domain}
            {...each}
            terms={terms}
            onRemove={() => {
              recipients.remove(each.domain);
            }}
          />
        ))}
        {recipients.people.slice(0, shown).map((person) => (
          <PersonRow
            key={person.address}
            person={person}
            terms={terms}
            open={open === person.address}
            onOpen={() => {
              setOpen(open === person.address ? null : person.address);
            }}
            recipients={recipients}
          />
        ))}
      </TableBody>
      {recipients.people.length > shown && (
        <TableFooter>
          <TableRow>
            <TableCell colSpan={4}>
              {recipients.people.length - shown} more.{' '}
              <Button
                variant="text"
                onClick={() => {
                  setShown(recipients.people.length);
                }}
              >
                Show all
              </Button>
            </TableCell>
          </TableRow>
        </TableFooter>
      )}
    </Table>
  );
}

/** What somebody may, and until when. */
function MayCell({ terms }: { readonly terms: TermsDraft | null }) {
  const zone = useZone();
  if (terms === null) return 'in the clear';
  return (
    <>
      {rightsLine(terms.rights, terms.prints)}
      <br />
      <span className="figure small">
        {terms.until === null ? 'no end' : momentText(terms.until, zone)}
      </span>
    </>
  );
}

/** Everyone at a domain: one grant for all of them, until each has one of their own. */
function DomainRow({
  domain,
  check,
  terms,
  onRemove,
}: DomainDraft & { readonly terms: TermsDraft | null; readonly onRemove: () => void }) {
  return (
    <TableRow>
      <TableCell>
        <b>Everyone at {bareDomain(domain)}</b>
        <br />
        <span className="quiet small">
          {whoWords.domain}
          {check !== null && `; ${String(check.known)} known here`}
        </span>
        {check?.publicMail === true && (
          <p className="magenta small">
            Anybody can have an email address there, so this would be open to everyone.
          </p>
        )}
      </TableCell>
      <TableCell>{check?.organisation}</TableCell>
      <TableCell className="quiet">
        <MayCell terms={terms} />
      </TableCell>
      <TableCell>
        <Button variant="text" aria-label={`Remove ${domain}`} onClick={onRemove}>
          Remove
        </Button>
      </TableCell>
    </TableRow>
  );
}

type RowProps = {
  readonly person: RecipientDraft;
  readonly terms: TermsDraft | null;
  readonly open: boolean;
  readonly onOpen: () => void;
  readonly recipients: Recipients;
};

function PersonRow(props: RowProps) {
  const { person, terms, open } = props;
  const own = terms === null ? null : (person.terms ?? terms);
  return (
    <>
      <TableRow>
        <TableCell>
          <NameOf {...props} />
          <br />
          <span className="quiet small">{person.address}</span>
          <Doubts check={person.check} />
        </TableCell>
        <TableCell>
          <OrganisationOf {...props} />
        </TableCell>
        <TableCell className={person.terms === null ? 'quiet' : ''}>
          <MayCell terms={own} />
        </TableCell>
        <TableCell className="nowrap">
          <RowActions {...props} />
        </TableCell>
      </TableRow>
      {open && own !== null && <OwnTerms {...props} own={own} />}
    </>
  );
}

/** Who is known is named as they are; the name of anybody new is asked for. */
function NameOf({ person: { address, name, check }, recipients }: RowProps) {
  if (check?.known != null) return <b>{name === '' ? address : name}</b>;
  return (
    <PlainField
      label={`Name of ${address}`}
      placeholder="name"
      value={name}
      onText={(text) => {
        recipients.change(address, { name: text });
      }}
    />
  );
}

function OrganisationOf({ person: { address, organisation, check }, recipients }: RowProps) {
  if (check?.known != null) return organisation;
  return (
    <PlainField
      label={`Organisation of ${address}`}
      placeholder="organisation"
      value={organisation}
      onText={(text) => {
        recipients.change(address, { organisation: text });
      }}
    />
  );
}

/** What to look at once more about an address. */
function Doubts({ check }: Pick<RecipientDraft, 'check'>) {
  if (check === null) return null;
  const { known, looksLike, publicMail } = check;
  if (looksLike !== null)
    return <p className="lamp small">New, and one letter away from {looksLike}</p>;
  if (known === null)
    return (
      <p className={publicMail ? 'small lamp' : 'small quiet'}>
        new here
        {publicMail && ', at a public mail provider'}
      </p>
    );
  return known.blocked ? <p className="magenta small">blocked, could open nothing</p> : null;
}

function RowActions({ person, terms, open, onOpen, recipients }: RowProps) {
  const { address } = person;
  return (
    <>
      {terms !== null && (
        <Button
          variant="text"
          aria-expanded={open}
          aria-label={`Different terms for ${address}`}
          onClick={() => {
            if (!open && person.terms === null) recipients.change(address, { terms });
            onOpen();
          }}
        >
          {open ? 'Done' : 'Different terms'}
        </Button>
      )}
      <Button
        variant="text"
        aria-label={`Remove ${address}`}
        onClick={() => {
          recipients.remove(address);
        }}
      >
        Remove
      </Button>
    </>
  );
}

/** The terms of one person alone, below their row. */
function OwnTerms({
  person: { address },
  own,
  onOpen,
  recipients,
}: RowProps & { readonly own: TermsDraft }) {
  const [said, setSaid] = useState<string | null>(null);
  return (
    <TableRow>
      <TableCell colSpan={4}>
        <TermsFields
          terms={own}
          onChange={(next) => {
            recipients.change(address, { terms: next });
          }}
          said={said}
          onSaid={setSaid}
        />
        <div className="row above-8">
          <Button
            onClick={() => {
              recipients.change(address, { terms: null });
              onOpen();
            }}
          >
            Use common terms
          </Button>
        </div>
      </TableCell>
    </TableRow>
  );
}
