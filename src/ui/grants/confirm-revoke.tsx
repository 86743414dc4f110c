'use client';

import { useState } from 'react';
import type { RevokeEffect } from '@/contracts/access';
import type { GrantRow } from '@/contracts/dispatch';
import type { GrantId } from '@/core/base/ids';
import { personName } from '@/ui/grants/grant-words';
import { RevokeEffectLines } from '@/ui/grants/revoke-effect-lines';
import { useAsked } from '@/ui/http/use-asked';
import { Confirmation } from '@/ui/shell/confirmation';
import { Problem } from '@/ui/shell/notice';

type Props = {
  readonly open: boolean;
  readonly busy: boolean;
  readonly grants: readonly GrantRow[];
  readonly onClose: () => void;
  /** @param also further grants, by which some of them would still come in */
  readonly onConfirm: (also: readonly GrantId[], reason: string) => void;
};

/** Names who would be shut out, who would not, and what is beyond reach, before it is done. */
export function ConfirmRevoke({ open, busy, grants, onClose, onConfirm }: Props) {
  const names = [...new Set(grants.map(personName))];
  const {
    answer,
    busy: looking,
    problem,
  } = useAsked(
    'POST /api/v1/grants/revoke/preview',
    open ? { grants: grants.map(({ id }) => id) } : null,
  );
  // What was found about other grants says nothing about these.
  const effect = looking ? null : answer;
  const [chosen, setChosen] = useState<{
    readonly of: RevokeEffect;
    readonly also: readonly GrantId[];
  } | null>(null);
  // What was chosen belongs to the question it was chosen in.
  const also = chosen?.of === effect ? chosen.also : [];
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
      <Problem words={problem} />
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
