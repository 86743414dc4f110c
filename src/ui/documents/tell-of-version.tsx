'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import type { VersionRow } from '@/contracts/document-detail';
import { counted } from '@/core/base/counted';
import type { DocumentId } from '@/core/base/ids';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';
import { Confirmation } from '@/ui/shell/confirmation';
import { Moment } from '@/ui/time/moment';

/** Mails everyone who can open a document that a new version took its place; once a version. */
export function TellOfVersion({
  id,
  versions,
}: {
  readonly id: DocumentId;
  readonly versions: readonly VersionRow[];
}) {
  const [asking, setAsking] = useState(false);
  const { busy, said, attempt } = useAttempt();
  const current = versions.find(({ isCurrent }) => isCurrent);
  if (current === undefined || versions.length < 2) return null;
  const tell = async (reason: string) => {
    await attempt(
      () => api('POST /api/v1/documents/:id/tell', { id, reason }),
      ({ people }) => `${counted(people, 'person', 'people')} mailed.`,
    );
    setAsking(false);
  };
  return (
    <>
      {current.toldAt === null ? (
        <div className="row">
          <Button
            disabled={busy}
            onClick={() => {
              setAsking(true);
            }}
          >
            Tell everyone who has it…
          </Button>
        </div>
      ) : (
        <p className="quiet">
          Everybody with access was told of version {current.number} <Moment at={current.toldAt} />.
        </p>
      )}
      {said !== null && (
        <p role="status" className={said.stops ? 'magenta' : 'quiet'}>
          {said.text}
        </p>
      )}
      <Confirmation
        open={asking}
        busy={busy}
        title={`Tell everybody of version ${String(current.number)}?`}
        action="Mail them"
        onClose={() => {
          setAsking(false);
        }}
        onConfirm={(reason) => void tell(reason)}
      >
        <p>
          Each person who can open the document now is mailed that a new version took its place,
          with the link they have. It is done once a version.
        </p>
      </Confirmation>
    </>
  );
}
