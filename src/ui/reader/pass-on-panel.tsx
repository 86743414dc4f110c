'use client';

import { rightNames } from '@/core/policy/right-names';
import { bareDomain } from '@/core/policy/address';
import { useState } from 'react';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import type { OpenResult, PassedOn } from '@/contracts/reader';
import type { DocumentId } from '@/core/base/ids';
import type { Right } from '@/core/policy/rights';
import { sentenceOf } from '@/ui/http/call';
import { readerCall } from '@/ui/reader/reader-call';
import { rightsLine } from '@/core/policy/rights-line';

type Props = {
  readonly document: DocumentId;
  readonly opened: OpenResult & { readonly outcome: 'granted' };
  readonly granted: readonly Right[];
  readonly onPassedOn: (passedOn: readonly PassedOn[]) => void;
};

/** Passing a document on: to whom, how much of what one may do, and to whom it went already. */
export function PassOnPanel({ document, opened, granted, onPassedOn }: Props) {
  const { passedOn } = opened;
  const [open, setOpen] = useState(false);
  const [address, setAddress] = useState('');
  const [note, setNote] = useState('');
  const [rights, setRights] = useState<readonly Right[]>(['read']);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const { passOn } = opened;
  if (passOn === null) return null;
  const left = passOn.people - passedOn.filter(({ revoked }) => !revoked).length;
  const offered = granted.filter(
    (right) => right !== 'read' && (right !== 'pass-on' || passOn.steps > 1),
  );
  const send = async () => {
    setBusy(true);
    setProblem(null);
    try {
      onPassedOn(
        (
          await readerCall<{ readonly passedOn: readonly PassedOn[] }>(
            'POST',
            '/api/v1/reader/pass-on',
            { document, address, rights, until: opened.until, note },
          )
        ).passedOn,
      );
      setAddress('');
      setNote('');
      setOpen(false);
    } catch (error) {
      setProblem(sentenceOf(error));
    } finally {
      setBusy(false);
    }
  };
  return (
    <section className="stack" aria-label="Passing on">
      <hr />
      <h2>Passing on</h2>
      <p className="quiet">
        You may pass this on to {left} {passedOn.length > 0 && 'more '}
        {left === 1 ? 'person' : 'people'}
        {passOn.domains !== null && ` at ${passOn.domains.map(bareDomain).join(', ')}`}. They get no
        more than you have, and it ends when yours ends. {opened.sender.name} can see to whom you
        passed it on.
      </p>
      {passedOn.map((each) => (
        <p key={each.address}>
          {each.address}:{' '}
          {each.revoked ? <span className="magenta">revoked</span> : rightsLine(each.rights, null)}
        </p>
      ))}
      {!open && left > 0 && (
        <div className="row">
          <Button
            onClick={() => {
              setOpen(true);
            }}
          >
            Pass it on…
          </Button>
        </div>
      )}
      {open && (
        <form
          className="stack loose"
          onSubmit={(event) => {
            event.preventDefault();
            void send();
          }}
        >
          <TextField
            label="Their email address"
            type="email"
            required
            value={address}
            onChange={(event) => {
              setAddress(event.target.value);
            }}
          />
          {offered.length > 0 && (
            <div className="row">
              {offered.map((right) => (
                <FormControlLabel
                  key={right}
                  control={
                    <Checkbox
                      size="small"
                      checked={rights.includes(right)}
                      onChange={(_event, on) => {
                        setRights(
                          on ? [...rights, right] : rights.filter((each) => each !== right),
                        );
                      }}
                    />
                  }
                  label={rightNames[right]}
                />
              ))}
            </div>
          )}
          <TextField
            label="Note"
            multiline
            value={note}
            onChange={(event) => {
              setNote(event.target.value);
            }}
          />
          <div className="row">
            <Button type="submit" variant="contained" disabled={busy}>
              Pass it on
            </Button>
            <Button
              variant="text"
              onClick={() => {
                setOpen(false);
              }}
            >
              Cancel
            </Button>
          </div>
        </form>
      )}
      {problem !== null && (
        <p role="alert" className="magenta">
          {problem}
        </p>
      )}
    </section>
  );
}
