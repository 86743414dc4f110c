'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import type { AnswerInput, RequestRow } from '@/contracts/requests';
import { isMessage } from '@/core/policy/requests';
import { MomentField } from '@/ui/time/moment-field';
import { verbList } from '@/ui/words/rights-words';

export type AnswerFields = Omit<AnswerInput, 'requests'>;

type Props = {
  /** The first of those that are answered together. */
  readonly request: RequestRow;
  readonly people: number;
  /** Whether those answered together asked for different times. */
  readonly differ: boolean;
  readonly onAnswer: (fields: AnswerFields, done: string) => Promise<void>;
  readonly onAskBack: (words: string) => Promise<void>;
};

/** Nothing is given; what is said is said in words. */
const GIVES_NOTHING = { right: null, until: null, prints: null } as const;

/** Gives what was asked, part of it, or for a while; or declines with a sentence. */
export function AnswerForm(props: Props) {
  return isMessage(props.request) ? <MessageAnswer {...props} /> : <GrantAnswer {...props} />;
}

/** Whether an answer or a question is on its way, and what sends them. */
function useAnswering({ onAnswer, onAskBack }: Props) {
  const [busy, setBusy] = useState(false);
  const during = async (sending: Promise<void>) => {
    setBusy(true);
    await sending;
    setBusy(false);
  };
  return {
    busy,
    send: (fields: AnswerFields, done: string) => during(onAnswer(fields, done)),
    ask: (words: string) => during(onAskBack(words)),
  };
}

function Words({
  label,
  value,
  onChange,
}: {
  readonly label: string;
  readonly value: string;
  readonly onChange: (words: string) => void;
}) {
  return (
    <TextField
      label={label}
      className="picker"
      value={value}
      onChange={({ target }) => {
        onChange(target.value);
      }}
      slotProps={{ htmlInput: { maxLength: 500 } }}
    />
  );
}

function MessageAnswer(props: Props) {
  const [words, setWords] = useState('');
  const { busy, send } = useAnswering(props);
  return (
    <div className="row answer-form">
      <Words label="Your answer" value={words} onChange={setWords} />
      <Button
        variant="contained"
        disabled={busy || words.trim() === ''}
        onClick={() => void send({ ...GIVES_NOTHING, words }, 'Answered')}
      >
        Send answer
      </Button>
    </div>
  );
}

/** The right that was asked for, where an answer can give it. */
function answerable({ right }: RequestRow): AnswerInput['right'] {
  return right === 'pass-on' ? null : right;
}

/** The right that an answer gives, and to print how often. */
function rightGiven(
  request: RequestRow,
  isGiven: boolean,
  prints: string,
): Pick<AnswerFields, 'right' | 'prints'> {
  if (!isGiven) return { right: null, prints: null };
  return {
    right: answerable(request),
    prints: request.right === 'print' ? printsOf(prints) : null,
  };
}

function printsOf(text: string): number | null {
  return text === '' ? null : Math.max(1, Math.floor(Number(text)) || 1);
}

function GrantAnswer(props: Props) {
  const { request, people, differ } = props;
  const [isGiven, setGiven] = useState(request.right !== null);
  const [until, setUntil] = useState(request.until);
  const [prints, setPrints] = useState(request.right === 'print' ? '1' : '');
  const [words, setWords] = useState('');
  const [isAsAsked, setAsAsked] = useState(differ);
  const { busy, send, ask } = useAnswering(props);
  const given = isGiven ? request.right : null;
  const givesNothing = given === null && until === null && !isAsAsked;
  const give = () =>
    send(
      { ...rightGiven(request, isGiven, prints), until: isAsAsked ? 'as-asked' : until, words },
      'Given to',
    );
  return (
    <div className="stack loose answer-form">
      <div className="row top">
        {request.right !== null && (
          <RightGiven
            right={request.right}
            isGiven={isGiven}
            prints={prints}
            onGiven={setGiven}
            onPrints={setPrints}
          />
        )}
        {differ && (
          <FormControlLabel
            control={
              <Checkbox
                checked={isAsAsked}
                onChange={(_event, on) => {
                  setAsAsked(on);
                }}
              />
            }
            label="Each until the time they asked for"
          />
        )}
        {!isAsAsked && <EndField request={request} until={until} onChange={setUntil} />}
        <Words label="Message" value={words} onChange={setWords} />
      </div>
      <div className="row">
        <Button variant="contained" disabled={busy || givesNothing} onClick={() => void give()}>
          {people === 1 ? 'Give this' : `Give this to all ${String(people)}`}
        </Button>
        <WordsActs
          words={words}
          busy={busy}
          onDecline={() => void send({ ...GIVES_NOTHING, words }, 'Declined for')}
          onAsk={() => void ask(words)}
        />
      </div>
    </div>
  );
}

/** What can be done with words alone. */
function WordsActs({
  words,
  busy,
  onDecline,
  onAsk,
}: {
  readonly words: string;
  readonly busy: boolean;
  readonly onDecline: () => void;
  readonly onAsk: () => void;
}) {
  const isSilent = words.trim() === '';
  return (
    <>
      <Button color="error" disabled={busy || isSilent} onClick={onDecline}>
        Decline
      </Button>
      <Button disabled={busy || isSilent} onClick={onAsk}>
        Ask back
      </Button>
      {isSilent && (
        <span className="quiet">
          To decline, write a message that says why; to ask back, your question.
        </span>
      )}
    </>
  );
}

/** Whether the right that was asked for is given, and to print how often. */
function RightGiven({
  right,
  isGiven,
  prints,
  onGiven,
  onPrints,
}: {
  readonly right: NonNullable<RequestRow['right']>;
  readonly isGiven: boolean;
  readonly prints: string;
  readonly onGiven: (on: boolean) => void;
  readonly onPrints: (text: string) => void;
}) {
  return (
    <>
      <FormControlLabel
        control={
          <Checkbox
            checked={isGiven}
            onChange={(_event, on) => {
              onGiven(on);
            }}
          />
        }
        label={`May ${verbList([right])}`}
      />
      {right === 'print' && (
        <TextField
          type="number"
          label="Prints"
          className="count"
          disabled={!isGiven}
          value={prints}
          onChange={({ target }) => {
            onPrints(target.value);
          }}
          helperText={prints === '' ? 'No limit' : ''}
        />
      )}
    </>
  );
}

/** When access ends, or until when a right is given where it alone was asked for. */
function EndField({
  request: { right, until: asked },
  until,
  onChange,
}: {
  readonly request: RequestRow;
  readonly until: number | null;
  readonly onChange: (until: number | null) => void;
}) {
  const isRightOnly = right !== null && asked === null;
  return (
    <MomentField
      label={isRightOnly ? 'Only until' : 'Access ends'}
      value={until}
      onChange={onChange}
      none={isRightOnly ? 'As long as they may read' : 'No end'}
      {...(isRightOnly && until !== null ? { hint: 'The right ends then, reading goes on' } : {})}
    />
  );
}
