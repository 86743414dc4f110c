'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import type { CutPreview, CutResult } from '@/contracts/access';
import type { Scope } from '@/core/policy/scope';
import { call, sentenceOf } from '@/ui/http/call';
import { ConfirmCut } from '@/ui/shell/confirm-cut';
import type { Changes } from '@/ui/dispatches/use-changes';

const MOST_NAMES = 40;

function beyondReach({ printsMade, mayHaveKept }: CutPreview): string {
  const parts = [printsMade > 0 ? `${String(printsMade)} print ${printsMade === 1 ? 'rendition' : 'renditions'} already made` : null, mayHaveKept > 0 ? `what ${String(mayHaveKept)} of them may have kept` : null].filter((part) => part !== null);
  return parts.length === 0 ? 'Nothing was printed or kept.' : `Beyond reach: ${parts.join(', and ')}.`;
}

/** Revokes a whole scope at once: shows who would be hit, asks, does it, and offers the way back. */
export function RevokeScope({ scope, label, title, changes }: { readonly scope: Scope; readonly label: string; readonly title: string; readonly changes: Changes }) {
  const [preview, setPreview] = useState<CutPreview | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const look = async () => {
    setProblem(null);
    try {
      setPreview(await call<CutPreview>('POST', '/api/v1/access/preview', { scope }));
    } catch (error) {
      setProblem(sentenceOf(error));
    }
  };
  const cut = () => changes.cutWhole(() => call<CutResult>('POST', '/api/v1/access/revoke', { scope })).then(() => { setPreview(null); });
  return (
    <>
      <Button color="error" disabled={changes.busy} onClick={() => void look()}>{label}</Button>
      {problem !== null && <p role="alert" className="magenta">{problem}</p>}
      <ConfirmCut open={preview !== null} busy={changes.busy || preview?.grants === 0} title={title} action={`Revoke ${String(preview?.grants ?? 0)}`} onClose={() => { setPreview(null); }} onConfirm={() => void cut()}>
        {preview !== null && (preview.grants === 0 ? <p>Nothing here can be opened any more.</p> : (
          <>
            <p>{preview.people.length === 1 ? '1 person' : `${String(preview.people.length)} people`}, {preview.documents === 1 ? '1 document' : `${String(preview.documents)} documents`}: {preview.people.slice(0, MOST_NAMES).join(', ')}{preview.people.length > MOST_NAMES ? ` and ${String(preview.people.length - MOST_NAMES)} more` : ''}.</p>
            <p>They are shut out at once: a page that is open now goes blank within two seconds. {beyondReach(preview)} Everybody else keeps what they have, and this can be undone.</p>
          </>
        ))}
        {preview !== null && preview.beyondPower > 0 && <p className="notice">{preview.beyondPower} {preview.beyondPower === 1 ? 'grant was' : 'grants were'} given by somebody else and stay as they are: ask an administrator.</p>}
      </ConfirmCut>
    </>
  );
}
