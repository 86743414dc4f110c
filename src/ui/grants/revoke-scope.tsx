'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import type { RevokePreview } from '@/contracts/access';
import { counted } from '@/core/base/counted';
import type { GrantId } from '@/core/base/ids';
import type { Scope } from '@/core/policy/scope';
import { RevokeEffectLines } from '@/ui/grants/revoke-effect-lines';
import type { Changes } from '@/ui/grants/use-changes';
import { api } from '@/ui/http/api';
import { useAsked } from '@/ui/http/use-asked';
import { Confirmation } from '@/ui/shell/confirmation';
import { Note, Problem } from '@/ui/shell/notice';

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
  const [also, setAlso] = useState<readonly GrantId[]>([]);
  const { answer, busy, problem } = useAsked(
    'POST /api/v1/access/preview',
    asking ? { scope } : null,
  );
  // What was found the last time this was asked may be over.
  const preview = busy ? null : answer;
  const close = () => {
    setAsking(false);
  };
  const revoke = (reason: string) =>
    changes
      .revokeWhole(() => api('POST /api/v1/access/revoke', { scope, also, reason }))
      .then(close);
  return (
    <>
      <Button
        color="error"
        disabled={changes.busy}
        onClick={() => {
          setAlso([]);
          setAsking(true);
        }}
      >
        {label}
      </Button>
      <Confirmation
        open={asking}
        busy={changes.busy || preview?.grants === 0}
        title={title}
        action={preview === null ? 'Revoke all' : `Revoke ${String(preview.grants + also.length)}`}
        onClose={close}
        onConfirm={(reason) => void revoke(reason)}
      >
        <Problem words={problem} />
        {preview === null && problem === null && (
          <p role="status" className="quiet">
            Checking other ways they have… You need not wait.
          </p>
        )}
        {preview !== null && <Found preview={preview} also={also} onAlso={setAlso} />}
      </Confirmation>
    </>
  );
}

/** What revoking the scope would do, and what of it the person asking may not do. */
function Found({
  preview: { grants, effect, beyondPower },
  also,
  onAlso,
}: {
  readonly preview: RevokePreview;
  readonly also: readonly GrantId[];
  readonly onAlso: (also: readonly GrantId[]) => void;
}) {
  return (
    <>
      {grants === 0 ? (
        <p>There is nothing left to revoke.</p>
      ) : (
        <RevokeEffectLines effect={effect} also={also} onAlso={onAlso} />
      )}
      {beyondPower > 0 && (
        <Note>
          {counted(beyondPower, 'grant was', 'grants were')} given by somebody else and are not
          changed. Ask an administrator.
        </Note>
      )}
    </>
  );
}
