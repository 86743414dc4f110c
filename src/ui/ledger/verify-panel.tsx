'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import type { VerifyLine, VerifyResult } from '@/contracts/ledger';
import { counted } from '@/core/base/counted';
import { callLines, sentenceOf } from '@/ui/http/call';

const number = (n: number): string => n.toLocaleString('en-GB');

/** Verifies the ledger here, against checkpoints that were kept outside where there are any. */
export function VerifyPanel({ size }: { readonly size: number }) {
  const [checkpoints, setCheckpoints] = useState('');
  const [done, setDone] = useState<number | null>(null);
  const [result, setResult] = useState<VerifyResult | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const verify = async () => {
    setDone(0);
    setResult(null);
    setProblem(null);
    try {
      await callLines('/api/v1/ledger/verify', { checkpoints }, (line) => {
        const said = line as VerifyLine;
        if ('verification' in said) setResult(said.verification);
        else setDone(said.entries);
      });
    } catch (error) {
      setProblem(sentenceOf(error));
    } finally {
      setDone(null);
    }
  };
  return (
    <section className="stack" aria-label="Verification">
      <h2>Verification</h2>
      <p className="quiet">
        Reads every entry from the first: the chain, the signed checkpoints, personal values,
        counts, and whether access matches what is recorded.
      </p>
      <TextField
        label="Checkpoints kept outside (optional)"
        multiline
        minRows={2}
        maxRows={6}
        value={checkpoints}
        onChange={(event) => {
          setCheckpoints(event.target.value);
        }}
        slotProps={{ htmlInput: { style: { fontFamily: 'var(--figure)', fontSize: 12 } } }}
      />
      <div className="row">
        <Button variant="contained" disabled={done !== null} onClick={() => void verify()}>
          Verify the ledger
        </Button>
        <Button component="a" href="/api/v1/ledger/checkpoint" download>
          Download newest checkpoint
        </Button>
      </div>
      {done !== null && (
        <p role="status">
          {number(done)} of {number(size)} entries…
          <br />
          <progress max={Math.max(1, size)} value={done} className="whole" />
        </p>
      )}
      {problem !== null && (
        <p role="alert" className="magenta">
          {problem}
        </p>
      )}
      {result !== null && <Result result={result} />}
    </section>
  );
}

function Result({
  result: { entries, checkpoints, signed, witnessed, backwards, problems },
}: {
  readonly result: VerifyResult;
}) {
  return (
    <div role="status" className="stack tight">
      <p className={problems.length === 0 ? 'answer' : 'answer magenta'}>
        {problems.length === 0
          ? `All ${number(entries)} entries hold.`
          : `The ledger does not hold: ${counted(problems.length, 'problem')}.`}
      </p>
      {problems.map(({ sequence, detail }) => (
        <p key={`${String(sequence)} ${detail}`} className="magenta">
          Entry {number(sequence)}: {detail}.
        </p>
      ))}
      <p>
        {counted(checkpoints, 'signed checkpoint')}, up to entry {number(signed)}.
      </p>
      <p>
        {witnessed === null
          ? 'No outside checkpoint was given, so this proves nothing against somebody who can write to the database.'
          : `Proven up to entry ${number(witnessed)} against checkpoints that were kept outside.`}
      </p>
      {backwards > 0 && (
        <p>
          {counted(backwards, 'entry has', 'entries have')} a time before that of an earlier one: a
          clock was set back.
        </p>
      )}
    </div>
  );
}
