'use client';

import { useState, type SubmitEvent } from 'react';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import type { OwnRequest } from '@/contracts/requests';
import type { RequestState } from '@/core/policy/requests';
import { sentenceOf } from '@/ui/http/call';
import { Moment } from '@/ui/time/moment';
import { askText, requestStateWords } from '@/ui/words/request-words';

const stateClass: Record<RequestState, string> = {
  waiting: 'lamp',
  'asked-back': 'lamp',
  given: 'current',
  'given-in-part': 'current',
  declined: 'magenta',
  answered: 'current',
};

/** One thing that somebody asked for: what came of it, and the question they are to answer first. */
export function AskedRequest({
  request,
  sender,
  onReply,
}: {
  readonly request: OwnRequest;
  readonly sender: string;
  /** @throws CallError */
  readonly onReply: (words: string) => Promise<void>;
}) {
  const { until, state, turns, answer } = request;
  return (
    <div className="stack">
      <p>
        You {askText(request, true)}
        {until !== null && (
          <>
            {' '}
            until <Moment at={until} />
          </>
        )}
        : <b className={stateClass[state]}>{requestStateWords[state]}</b>
        {answer !== '' && <>, “{answer}”</>}
      </p>
      {turns.map((turn) => (
        <p key={turn.at}>
          {turn.by === 'staff' ? `${sender} asks` : 'You replied'}: “{turn.text}”
        </p>
      ))}
      {state === 'asked-back' && <ReplyForm sender={sender} onReply={onReply} />}
    </div>
  );
}

function ReplyForm({
  sender,
  onReply,
}: {
  readonly sender: string;
  readonly onReply: (words: string) => Promise<void>;
}) {
  const [words, setWords] = useState('');
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const send = async (event: SubmitEvent<HTMLFormElement>) => {
    event.preventDefault();
    setBusy(true);
    setProblem(null);
    try {
      await onReply(words);
    } catch (error) {
      setProblem(sentenceOf(error));
    } finally {
      setBusy(false);
    }
  };
  return (
    <form className="stack" onSubmit={(event) => void send(event)}>
      <TextField
        label="Your reply"
        required
        multiline
        value={words}
        onChange={({ target }) => {
          setWords(target.value);
        }}
        slotProps={{ htmlInput: { maxLength: 500 } }}
      />
      {problem !== null && (
        <p role="alert" className="magenta">
          {problem}
        </p>
      )}
      <div className="row">
        <Button type="submit" variant="contained" disabled={busy || words.trim() === ''}>
          Reply to {sender}
        </Button>
      </div>
    </form>
  );
}
