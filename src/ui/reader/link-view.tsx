'use client';

import { useState, type ReactNode } from 'react';
import type { DocumentId } from '@/core/base/ids';
import type { SharedWith } from '@/contracts/reader';
import { CallError, sentenceOf } from '@/ui/http/call';
import { Opening, Stuck } from '@/ui/reader/before-opening';
import { isCounted } from '@/ui/reader/is-counted';
import { leave } from '@/ui/reader/leave';
import { OpenView } from '@/ui/reader/open-view';
import { Refusal } from '@/ui/reader/refusal';
import { documentOf, usePickedFile } from '@/ui/reader/picked-file';
import { SharedList } from '@/ui/reader/shared-list';
import { useHandIn } from '@/ui/reader/use-hand-in';
import { useSigned } from '@/ui/reader/use-signed';

/**
 * What a link leads to, asked for with this browser's signature; `entry` is shown where that is
 * not, or no longer, accepted.
 */
export function LinkView({ token, entry }: { readonly token: string; readonly entry: ReactNode }) {
  useHandIn();
  const { found, failed } = useSigned<SharedWith>(`/api/v1/reader/shared?token=${token}`);
  if (failed instanceof CallError && failed.code === 'NOT_SIGNED_IN') return entry;
  if (failed !== null) return <Stuck words={sentenceOf(failed)} />;
  if (found === null) return <Opening />;
  return <LedTo token={token} shared={found} />;
}

/** The one document at once, or the list. */
function LedTo({ token, shared }: { readonly token: string; readonly shared: SharedWith }) {
  const [alone] = shared.documents.length === 1 ? shared.documents : [];
  const { picked, pick } = usePickedFile();
  const meant = documentOf(picked, shared.documents) ?? alone;
  // Where opens are counted, one is spent only when somebody says so.
  const single = meant !== undefined && !isCounted(meant) ? meant.id : null;
  const [chosen, setChosen] = useState<DocumentId | null>(single);
  const onLeave = () => void leave();
  if (shared.sender === null)
    return (
      <Refusal
        reason="not-addressed"
        at={null}
        address={shared.address}
        sender={null}
        onLeave={onLeave}
        onBack={null}
        onAgain={null}
        more={null}
      />
    );
  if (chosen === null) return <SharedList shared={shared} onOpen={setChosen} onLeave={onLeave} />;
  const onBack = () => {
    pick(null);
    setChosen(null);
  };
  return (
    <OpenView
      key={chosen}
      token={token}
      document={chosen}
      onBack={alone === undefined || single === null ? onBack : null}
    />
  );
}
