'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import type { RevokePreview } from '@/contracts/access';
import type { GrantId } from '@/core/base/ids';
import type { Scope } from '@/core/policy/scope';
import { Note } from '@/ui/shell/notice';
import { RevokeEffectLines } from '@/ui/grants/revoke-effect-lines';
import type { Changes } from '@/ui/grants/use-changes';
import { api } from '@/ui/http/api';
import { sentenceOf } from '@/ui/http/call';
import { Confirmation } from '@/ui/shell/confirmation';

/** Revokes a whole scope at once: shows who would be hit, asks, does it, and offers the way back. */
export function RevokeScope({
  scope,
  label,
  title,
  changes,
}: {
  readonly scope: Scope;
  readonly label: string;
  readonly title: string;
  readonly changes: Changes;
}) {
  const [asking, setAsking] = useState(false);
  const [preview, setPreview] = useState<RevokePreview | null>(null);
  const [also, setAlso] = useState<readonly GrantId[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  const look = async () => {
    setProblem(null);
    setPreview(null);
    setAlso([]);
    setAsking(true);
    try {
      setPreview(await api('POST /api/v1/access/preview', { scope }));
    } catch (error) {
      setProblem(sentenceOf(error));
    }
  };
  const revoke = (reason: string) =>
    changes
      .revokeWhole(() => api('POST /api/v1/access/revoke', { scope, also, reason }))
      .then(() => {
        setAsking(false);
      });
  const isNothing = preview?.grants === 0;
  return (
    <>
      <Button color="error" disabled={changes.busy} onClick={() => void look()}>
        {label}
      </Button>
      <Confirmation
        open={asking}
        busy={changes.busy || isNothing}
        title={title}
        action={preview === null ? 'Revoke all' : `Revoke ${String(preview.grants + also.length)}`}
        onClose={() => {
          setAsking(false);
        }}
        onConfirm={(reason) => void revoke(reason)}
      >
        {problem !== null && (
          <p role="alert" className="magenta">
            {problem}
          </p>
        )}
        {preview === null && problem === null && (
          <p role="status" className="quiet">
            Checking other ways they have… You need not wait.
          </p>
        )}
        {isNothing && <p>There is nothing left to revoke.</p>}
        {preview !== null && !isNothing && (
          <RevokeEffectLines effect={preview.effect} also={also} onAlso={setAlso} />
        )}
        {preview !== null && preview.beyondPower > 0 && (
          <Note>
            {preview.beyondPower} {preview.beyondPower === 1 ? 'grant was' : 'grants were'} given by
            somebody else and are not changed. Ask an administrator.
          </Note>
        )}
      </Confirmation>
    </>
  );
}
