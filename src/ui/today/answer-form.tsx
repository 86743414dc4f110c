'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import type { AnswerInput, RequestRow } from '@/contracts/requests';
import { isMessage } from '@/core/policy/requests';
import { verbList } from '@/ui/words/rights-words';
import { MomentField } from '@/ui/time/moment-field';

export type AnswerFields = Omit<AnswerInput, 'requests'>;

/** Gives what was asked, part of it, or for a while; or declines with a sentence. */
export function AnswerForm({
  request,
  people,
  onAnswer,
}: {
  readonly request: RequestRow;
  readonly people: number;
  readonly onAnswer: (fields: AnswerFields, done: string) => Promise<void>;
}) {
  const [right, setRight] = useState(request.right !== null);
  const [end, setEnd] = useState(request.until);
  const [prints, setPrints] = useState(request.right === 'print' ? '1' : '');
  const [words, setWords] = useState('');
  const [busy, setBusy] = useState(false);
  const isRightOnly = request.right !== null && request.until === null;
  const given = right ? request.right : null;
  const asked =
    request.right !== null &&
    request.right !== 'pass-on' &&
    request.right !== 'comment' &&
    request.right !== 'revise'
      ? request.right
      : null;
  const send = async (fields: AnswerFields, done: string) => {
    setBusy(true);
    await onAnswer(fields, done);
    setBusy(false);
  };
  if (isMessage(request)) {
    return (
      <div className="row" style={{ padding: '6px 0 12px' }}>
        <TextField
          label="Your answer"
          value={words}
          onChange={(event) => {
            setWords(event.target.value);
          }}
          sx={{ flex: 1, minWidth: 240 }}
          slotProps={{ htmlInput: { maxLength: 500 } }}
        />
        <Button
          variant="contained"
          disabled={busy || words.trim() === ''}
          onClick={() => void send({ right: null, until: null, prints: null, words }, 'Answered')}
        >
          Send answer
        </Button>
      </div>
    );
  }
  return (
    <div className="stack" style={{ padding: '6px 0 12px', gap: 14 }}>
      <div className="row top">
        {request.right !== null && (
          <FormControlLabel
            control={
              <Checkbox
                checked={right}
                onChange={(_event, on) => {
                  setRight(on);
                }}
              />
            }
            label={`May ${verbList([request.right])}`}
          />
        )}
        {request.right === 'print' && (
          <TextField
            type="number"
            label="Prints"
            sx={{ maxWidth: 110 }}
            disabled={!right}
            value={prints}
            onChange={(event) => {
              setPrints(event.target.value);
            }}
            helperText={prints === '' ? 'No limit' : ''}
          />
        )}
        <MomentField
          label={request.right === null || request.until !== null ? 'Access ends' : 'Only until'}
          value={end}
          onChange={setEnd}
          none={isRightOnly ? 'As long as they may read' : 'No end'}
          {...(isRightOnly && end !== null ? { hint: 'The right ends then, reading goes on' } : {})}
        />
        <TextField
          label="Message"
          value={words}
          onChange={(event) => {
            setWords(event.target.value);
          }}
          sx={{ flex: 1, minWidth: 240 }}
          slotProps={{ htmlInput: { maxLength: 500 } }}
        />
      </div>
      <div className="row">
        <Button
          variant="contained"
          disabled={busy || (given === null && end === null)}
          onClick={() =>
            void send(
              {
                right: given === null ? null : asked,
                until: end,
                prints:
                  given === 'print' && prints !== ''
                    ? Math.max(1, Math.floor(Number(prints)) || 1)
                    : null,
                words,
              },
              'Given to',
            )
          }
        >
          {people === 1 ? 'Give this' : `Give this to all ${String(people)}`}
        </Button>
        <Button
          color="error"
          disabled={busy || words.trim() === ''}
          onClick={() =>
            void send({ right: null, until: null, prints: null, words }, 'Declined for')
          }
        >
          Decline
        </Button>
        {words.trim() === '' && (
          <span className="quiet">To decline, write a message that says why.</span>
        )}
      </div>
    </div>
  );
}
