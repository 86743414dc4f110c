'use client';

import { useState, type SubmitEvent } from 'react';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import type { OwnRequest } from '@/contracts/requests';
import { isMessage, type RequestState } from '@/core/policy/requests';
import { sentenceOf } from '@/ui/http/call';
import { Moment } from '@/ui/time/moment';
import { useWords } from '@/ui/words/use-words';
import type { SayReader } from '@/words/reader/reader-words';

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
  /** Null: a question is not answered here. @throws CallError */
  readonly onReply: ((words: string) => Promise<void>) | null;
}) {
  const { state, turns, answer } = request;
  const { say } = useWords();
  return (
    <div className="stack">
      <p>
        {askedWords(say, request)}:{' '}
        <b className={stateClass[state]}>{say(`ask.states.${state}`)}</b>
        {answer !== '' && <> {say('ask.answered', { text: answer })}</>}
      </p>
      {turns.map((turn) => (
        <p key={turn.at}>
          {turn.by === 'staff'
            ? say('ask.asks', { sender, text: turn.text })
            : say('ask.replied', { text: turn.text })}
        </p>
      ))}
      {state === 'asked-back' && onReply !== null && (
        <ReplyForm sender={sender} onReply={onReply} />
      )}
    </div>
  );
}

/** What was asked: a right, more time, both, or nothing but to be heard. */
function askedWords(say: SayReader, request: OwnRequest) {
  const { right, until } = request;
  if (isMessage(request)) return say('ask.message');
  const end = () => <Moment at={until ?? 0} />;
  if (right === null) return until === null ? say('ask.time') : say.rich('ask.timeUntil', { end });
  const verb = say(`rights.verbs.${right}`);
  return until === null ? say('ask.right', { verb }) : say.rich('ask.rightUntil', { verb, end });
}

function ReplyForm({
  sender,
  onReply,
}: {
  readonly sender: string;
  readonly onReply: (words: string) => Promise<void>;
}) {
  const { say } = useWords();
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
        label={say('ask.yourReply')}
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
          {say('ask.reply', { sender })}
        </Button>
      </div>
    </form>
  );
}
