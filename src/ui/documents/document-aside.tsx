'use client';

import type { DocumentDetail } from '@/contracts/document-detail';
import { counted } from '@/core/base/counted';
import type { RecipientId } from '@/core/base/ids';
import { AccessThenPanel } from '@/ui/access-then/access-then-panel';
import { BeginsPanel } from '@/ui/documents/begins-panel';
import { DestroyKey } from '@/ui/documents/destroy-key';
import { FiledPanel } from '@/ui/documents/filed-panel';
import { OverPanel } from '@/ui/documents/over-panel';
import { VersionsPanel } from '@/ui/documents/versions-panel';
import { WentPanel } from '@/ui/documents/went-panel';
import { GivePanel } from '@/ui/give/give-panel';
import { api } from '@/ui/http/api';
import { useHolds } from '@/ui/shell/permissions';
import { StillReadablePanel } from '@/ui/still-readable/still-readable-panel';
import { Moment } from '@/ui/time/moment';

const UNREACHED = 'GET /api/v1/documents/:id/unreached';

/** Beside a document's grants: where it went, what bears on it, how it is filed, and the file itself. */
export function DocumentAside({
  detail,
  now,
}: {
  readonly detail: DocumentDetail;
  readonly now: number;
}) {
  const { id, mayChange, keyDestroyed, revokedAt } = detail;
  return (
    <div className="stack">
      <WentPanel grants={detail.grants} now={now} />
      {mayChange && revokedAt === null && !keyDestroyed && (
        <GivePanel<typeof UNREACHED, RecipientId>
          from={UNREACHED}
          takes={(q) => ({ id, q })}
          give={({ chosen, ...terms }) =>
            api('POST /api/v1/documents/:id/unreached', { id, recipients: chosen, ...terms })
          }
          ask="Add people who lack it…"
          title="Do not have it"
          disabled={false}
          done={(given) => `Given to ${counted(given, 'person', 'people')}.`}
        />
      )}
      <StillReadablePanel of={{ document: id }} />
      <hr />
      <AccessThenPanel of={{ document: id }} names="people" />
      <hr />
      <OverPanel detail={detail} />
      <hr />
      <BeginsPanel detail={detail} />
      <hr />
      <FiledPanel detail={detail} />
      <hr />
      <VersionsPanel id={id} versions={detail.versions} mayAdd={mayChange && !keyDestroyed} />
      <hr />
      <FilePart detail={detail} />
    </div>
  );
}

function FilePart({ detail }: { readonly detail: DocumentDetail }) {
  const { protectedAt, revokedAt, keyDestroyed, isLocal } = detail;
  return (
    <>
      <h2>The file</h2>
      <p className="quiet">
        Protected <Moment at={protectedAt} /> with ChaCha20-Poly1305, as a standard age file. Its
        key is in the vault, wrapped by the master key; the recovery key opens the file without
        Embargo.
      </p>
      {isLocal && (
        <p>
          It was encrypted on its sender’s machine: its content is not here, and its pages are drawn
          where its protected file is opened.
        </p>
      )}
      {revokedAt !== null && (
        <p className="magenta">
          Revoked <Moment at={revokedAt} />. The grants below are as they were.
        </p>
      )}
      {keyDestroyed ? (
        <p className="magenta">Its key was destroyed: nothing opens it here again.</p>
      ) : (
        <KeyPart detail={detail} />
      )}
    </>
  );
}

function KeyPart({
  detail: { id, reference, title, grants },
}: {
  readonly detail: DocumentDetail;
}) {
  const destroys = useHolds('destroy-key');
  if (!destroys) return null;
  const kept = grants.filter((grant) => grant.rights.includes('keep') && grant.opens > 0);
  return (
    <DestroyKey
      id={id}
      reference={reference}
      title={title}
      printsMade={grants.reduce((sum, grant) => sum + grant.printsMade, 0)}
      mayHaveKept={new Set(kept.map((grant) => grant.recipientId)).size}
    />
  );
}
