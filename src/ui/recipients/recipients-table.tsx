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

function PersonRow({ person, terms, open, onOpen, recipients }: RowProps) {
  const [said, setSaid] = useState<string | null>(null);
  const { address, check } = person;
  const own = terms === null ? null : (person.terms ?? terms);
  const isKnown = check?.known != null;
  return (
    <>
      <TableRow>
        <TableCell>
          {isKnown ? (
            <b>{person.name === '' ? address : person.name}</b>
          ) : (
            <input
              className="plain"
              aria-label={`Name of ${address}`}
              placeholder="name"
              value={person.name}
              onChange={(event) => {
                recipients.change(address, { name: event.target.value });
              }}
            />
          )}
          <br />
          <span className="quiet small">{address}</span>
          {check?.looksLike != null && (
            <p className="lamp small">New, and one letter away from {check.looksLike}</p>
          )}
          {check !== null && !isKnown && check.looksLike === null && (
            <p className={check.publicMail ? 'small lamp' : 'small quiet'}>
              new here
              {check.publicMail && ', at a public mail provider'}
            </p>
          )}
          {check?.known?.blocked === true && (
            <p className="magenta small">blocked, could open nothing</p>
          )}
        </TableCell>
        <TableCell>
          {isKnown ? (
            person.organisation
          ) : (
            <input
              className="plain"
              aria-label={`Organisation of ${address}`}
              placeholder="organisation"
              value={person.organisation}
              onChange={(event) => {
                recipients.change(address, { organisation: event.target.value });
              }}
            />
          )}
        </TableCell>
        <TableCell className={person.terms === null ? 'quiet' : ''}>
          <MayCell terms={own} />
        </TableCell>
        <TableCell className="nowrap">
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
        </TableCell>
      </TableRow>
      {open && own !== null && (
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
      )}
    </>
  );
}
