'use client';

import { useEffect, useState } from 'react';
import type { RevokeEffect } from '@/contracts/access';
import type { GrantRow } from '@/contracts/dispatch';
import type { GrantId } from '@/core/base/ids';
import { RevokeEffectLines } from '@/ui/grants/revoke-effect-lines';
import { personName } from '@/ui/grants/grant-words';
import { call, sentenceOf } from '@/ui/http/call';
import { Confirmation } from '@/ui/shell/confirmation';

type Props = {
  readonly open: boolean;
  readonly busy: boolean;
  readonly grants: readonly GrantRow[];
  readonly onClose: () => void;
  /** @param also further grants, by which some of them would still come in */
  readonly onConfirm: (also: readonly GrantId[], reason: string) => void;
};

/** What was found out about these grants; asked anew each time the question is put. */
function useEffectOf(
  open: boolean,
  ids: string,
): { readonly effect: RevokeEffect | null; readonly problem: string | null } {
  const [found, setFound] = useState<{
    readonly effect: RevokeEffect | null;
    readonly problem: string | null;
  }>({ effect: null, problem: null });
  useEffect(() => {
    if (!open) return undefined;
    let isWanted = true;
    const settle = (next: typeof found) => {
      if (isWanted) setFound(next);
    };
    settle({ effect: null, problem: null });
    call<RevokeEffect>('POST', '/api/v1/grants/revoke/preview', { grants: ids.split(' ') }).then(
      (effect) => {
        settle({ effect, problem: null });
      },
      (error: unknown) => {
        settle({ effect: null, problem: sentenceOf(error) });
      },
    );
    return () => {
      isWanted = false;
    };
  }, [open, ids]);
  return found;
}

/** Names who would be shut out, who would not, and what is beyond reach, before it is done. */
export function ConfirmRevoke({ open, busy, grants, onClose, onConfirm }: Props) {
  const names = [...new Set(grants.map(personName))];
  const ids = grants.map(({ id }) => id).join(' ');
  const { effect, problem } = useEffectOf(open, ids);
  const [chosen, setChosen] = useState<{
    readonly of: RevokeEffect;
    readonly also: readonly GrantId[];
  } | null>(null);
  // What was chosen belongs to the question it was chosen in.
  const also = chosen !== null && chosen.of === effect ? chosen.also : [];
  const title = `Revoke access for ${names.length === 1 ? (names[0] ?? '') : `${String(names.length)} people`}?`;
  return (
    <Confirmation
      open={open}
      busy={busy}
      title={title}
      action={`Revoke ${String(grants.length + also.length)}`}
      onClose={onClose}
      onConfirm={(reason) => {
        onConfirm(also, reason);
      }}
    >
      <p className="quiet">{names.join(', ')}</p>
      {problem !== null && (
        <p role="alert" className="magenta">
          {problem}
        </p>
      )}
      {effect === null && problem === null && (
        <p role="status" className="quiet">
          Checking other ways they have… You need not wait.
        </p>
      )}
      {effect !== null && (
        <RevokeEffectLines
          effect={effect}
          also={also}
          onAlso={(next) => {
            setChosen({ of: effect, also: next });
          }}
        />
      )}
    </Confirmation>
  );
}
