'use client';

import { bareDomain } from '@/core/policy/address';
import { useState } from 'react';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import type { OpenResult, PassedOn } from '@/contracts/reader';
import type { DocumentId } from '@/core/base/ids';
import { RIGHTS, type Right } from '@/core/policy/rights';
import { sentenceOf } from '@/ui/http/call';
import { readerCall } from '@/ui/reader/reader-call';
import { useWords } from '@/ui/words/use-words';
import type { SayReader } from '@/words/reader/reader-words';

type Props = {
  readonly document: DocumentId;
  readonly opened: OpenResult & { readonly outcome: 'granted' };
  readonly granted: readonly Right[];
  readonly onPassedOn: (passedOn: readonly PassedOn[]) => void;
};

/** Passing a document on: to whom, how much of what one may do, and to whom it went already. */
export function PassOnPanel({ document, opened, granted, onPassedOn }: Props) {
  const { passedOn } = opened;
  const { say } = useWords();
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
    <section className="stack" aria-label={say('passOn.heading')}>
      <hr />
      <h2>{say('passOn.heading')}</h2>
      <p className="quiet">
        {leftWords(say, {
          left,
          isMore: passedOn.length > 0,
          domains: passOn.domains,
          sender: opened.sender.name,
        })}
      </p>
      {passedOn.map((each) => (
        <p key={each.address}>
          {each.address}:{' '}
          {each.revoked ? (
            <span className="magenta">{say('passOn.revoked')}</span>
          ) : (
            RIGHTS.filter((right) => each.rights.includes(right))
              .map((right) => say(`rights.names.${right}`))
              .join(' · ')
          )}
        </p>
      ))}
      {!open && left > 0 && (
        <div className="row">
          <Button
            onClick={() => {
              setOpen(true);
            }}
          >
            {say('passOn.begin')}
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
            label={say('passOn.address')}
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
                  label={say(`rights.names.${right}`)}
                />
              ))}
            </div>
          )}
          <TextField
            label={say('passOn.note')}
            multiline
            value={note}
            onChange={(event) => {
              setNote(event.target.value);
            }}
          />
          <div className="row">
            <Button type="submit" variant="contained" disabled={busy}>
              {say('passOn.send')}
            </Button>
            <Button
              variant="text"
              onClick={() => {
                setOpen(false);
              }}
            >
              {say('cancel')}
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

/** To how many more it may go, and within which bounds. */
function leftWords(
  say: SayReader,
  {
    left,
    isMore,
    domains,
    sender,
  }: {
    readonly left: number;
    readonly isMore: boolean;
    readonly domains: readonly string[] | null;
    readonly sender: string;
  },
): string {
  if (domains === null) return say(isMore ? 'passOn.leftMore' : 'passOn.left', { left, sender });
  return say(isMore ? 'passOn.leftMoreAt' : 'passOn.leftAt', {
    left,
    sender,
    domains: domains.map(bareDomain).join(', '),
  });
}
