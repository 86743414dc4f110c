'use client';

import { useState, type SubmitEvent } from 'react';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import type { OwnRequest } from '@/contracts/requests';
import type { DocumentId } from '@/core/base/ids';
import { OFFERED_RIGHTS, type Right } from '@/core/policy/rights';
import { sentenceOf } from '@/ui/http/call';
import { readerCall } from '@/ui/reader/reader-call';
import type { Asking } from '@/ui/reader/use-asking';
import { AskedRequest } from '@/ui/reader/asked-request';
import { useWords } from '@/ui/words/use-words';
import { MomentField } from '@/ui/time/moment-field';

type Props = {
  /** Of the link that led here; null: the list of what was sent. */
  readonly token: string | null;
  readonly document: DocumentId;
  readonly sender: string;
  readonly requests: readonly OwnRequest[];
  readonly onRequests: (requests: readonly OwnRequest[]) => void;
  readonly granted: readonly Right[];
  readonly asking: Asking;
};

/** Where a recipient asks for a right or for more time, and sees what came of it. */
export function AskForm(props: Props) {
  const { token, document, sender, requests, onRequests, granted, asking } = props;
  const { isOpen, rights } = asking;
  const { say } = useWords();
  const [until, setUntil] = useState<number | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const missing = OFFERED_RIGHTS.filter(
    (right) => right !== 'read' && right !== 'pass-on' && !granted.includes(right),
  );

  const send = async (event: SubmitEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const text = (name: string) => {
      const value = form.get(name);
      return typeof value === 'string' ? value : '';
    };
    setBusy(true);
    setProblem(null);
    try {
      // One request a right, so that each can be answered by itself.
      for (const right of rights.size === 0 ? [null] : rights)
        onRequests(
          await readerCall<OwnRequest[]>('POST', '/api/v1/reader/requests', {
            token,
            document,
            right,
            until,
            reason: text('reason'),
          }),
        );
      asking.end();
      setUntil(null);
    } catch (error) {
      setProblem(sentenceOf(error));
    } finally {
      setBusy(false);
    }
  };

  return (
    <section className="stack" aria-label={say('ask.label')}>
      {requests.map((request) => (
        <AskedRequest
          key={request.id}
          request={request}
          sender={sender}
          onReply={async (words) => {
            onRequests(
              await readerCall<OwnRequest[]>('POST', '/api/v1/reader/requests/reply', {
                document,
                request: request.id,
                words,
              }),
            );
          }}
        />
      ))}
      {!isOpen && (
        <div className="row">
          <Button
            onClick={() => {
              asking.begin();
            }}
          >
            {say('ask.begin')}
          </Button>
        </div>
      )}
      {isOpen && (
        <form className="stack loose" onSubmit={(event) => void send(event)}>
          {missing.map((right) => (
            <FormControlLabel
              key={right}
              control={
                <Checkbox
                  checked={rights.has(right)}
                  onChange={(_event, on) => {
                    asking.tick(right, on);
                  }}
                />
              }
              label={say('rights.to', { verb: say(`rights.verbs.${right}`) })}
            />
          ))}
          <MomentField
            label={say('ask.until')}
            value={until}
            onChange={setUntil}
            none={say('ask.untilNone')}
          />
          <TextField
            name="reason"
            label={say('ask.reason')}
            required
            autoFocus
            multiline
            minRows={2}
            slotProps={{ htmlInput: { maxLength: 500 } }}
          />
          {problem !== null && (
            <p role="alert" className="magenta">
              {problem}
            </p>
          )}
          <div className="row">
            <Button type="submit" variant="contained" disabled={busy}>
              {say('ask.send', { sender })}
            </Button>
            <Button onClick={asking.end}>{say('cancel')}</Button>
          </div>
        </form>
      )}
    </section>
  );
}
