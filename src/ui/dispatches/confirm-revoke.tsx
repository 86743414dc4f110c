'use client';

import type { GrantRow } from '@/contracts/dispatch';
import { personName } from '@/ui/dispatches/grant-words';
import { ConfirmCut } from '@/ui/shell/confirm-cut';

/** What revoking cannot bring back, said before it is done. */
function beyondReach(grants: readonly GrantRow[]): string {
  const prints = grants.reduce((sum, grant) => sum + grant.printsMade, 0);
  const mayKeep = grants.filter((grant) => grant.rights.includes('keep') && grant.opens > 0).length;
  const parts = [prints > 0 ? `${String(prints)} print ${prints === 1 ? 'rendition' : 'renditions'} already made` : null, mayKeep > 0 ? `whatever ${String(mayKeep)} of them may have kept` : null].filter((part) => part !== null);
  return parts.length === 0 ? 'Nothing was printed or kept.' : `Beyond reach: ${parts.join(', and ')}.`;
}

/** Names who would be shut out, and what is beyond reach, before it is done. */
export function ConfirmRevoke({ open, busy, grants, onClose, onConfirm }: { readonly open: boolean; readonly busy: boolean; readonly grants: readonly GrantRow[]; readonly onClose: () => void; readonly onConfirm: () => void }) {
  const names = [...new Set(grants.map(personName))];
  return (
    <ConfirmCut open={open} busy={busy} title={`Revoke access for ${names.length === 1 ? (names[0] ?? '') : `${String(names.length)} people`}?`} action={`Revoke ${String(grants.length)}`} onClose={onClose} onConfirm={onConfirm}>
      <p>{names.join(', ')}</p>
      <p>They are shut out at once: a page that is open now goes blank within two seconds. {beyondReach(grants)} Everybody else keeps what they have, and this can be undone.</p>
    </ConfirmCut>
  );
}
