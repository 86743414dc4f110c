'use client';

import { counted } from '@/core/base/counted';
import Link from 'next/link';
import type { DocumentDetail } from '@/contracts/document-detail';
import { AccessThenPanel } from '@/ui/access-then/access-then-panel';
import { DestroyKey } from '@/ui/documents/destroy-key';
import { DocumentHead } from '@/ui/documents/document-head';
import { FiledPanel } from '@/ui/documents/filed-panel';
import { BeginsPanel } from '@/ui/documents/begins-panel';
import { OverPanel } from '@/ui/documents/over-panel';
import { VersionsPanel } from '@/ui/documents/versions-panel';
import { WentPanel } from '@/ui/documents/went-panel';
import { sizeText } from '@/ui/words/size-words';
import { GivePanel } from '@/ui/give/give-panel';
import { GrantsSurface } from '@/ui/grants/grants-surface';
import { personName, stateOf } from '@/ui/grants/grant-words';
import { useHolds } from '@/ui/shell/permissions';
import { Moment } from '@/ui/time/moment';

function openWords({ people, unknown }: DocumentDetail['reached']): string {
  if (people === 0) return unknown ? 'who can open it now is unknown' : 'nobody can open it now';
  return `${String(people)} can open it now${unknown ? ', and more that are unknown' : ''}`;
}

/** One document: who can open it now, and why. */
export function DocumentView({
  detail,
  now,
}: {
  readonly detail: DocumentDetail;
  readonly now: number;
}) {
  const destroys = useHolds('destroy-key');
  const live = detail.grants.filter((grant) => stateOf(grant, now) === 'live');
  const summary =
    `${counted(detail.pages, 'page')} · ${sizeText(detail.bytes)} · owned by ` +
    `${detail.ownerName} · ${openWords(detail.reached)}`;
  return (
    <GrantsSurface
      head={
        <DocumentHead
          id={detail.id}
          title={detail.title}
          reference={detail.reference}
          summary={summary}
          revoked={detail.revokedAt !== null}
          someRevoked={detail.grants.some(({ revokedAt }) => revokedAt !== null)}
          damaged={detail.damaged}
          mayChange={detail.mayChange}
          people={[...new Set(live.map(personName))]}
        />
      }
      grants={detail.grants}
      now={now}
      showDocument={false}
      empty={
        <div className="empty">
          <h2>Nobody has access to this document</h2>
          <p>
            <Link href={`/compose?document=${detail.id}`}>Compose a dispatch</Link>
          </p>
        </div>
      }
      aside={
        <div className="stack">
          <WentPanel grants={detail.grants} now={now} />
          {detail.mayChange && detail.revokedAt === null && !detail.keyDestroyed && (
            <GivePanel
              path={`/api/v1/documents/${detail.id}/unreached`}
              field="recipients"
              ask="Add people who lack it…"
              title="Do not have it"
              disabled={false}
              done={(given) => `Given to ${String(given)} ${given === 1 ? 'person' : 'people'}.`}
            />
          )}
          <hr />
          <AccessThenPanel of={{ document: detail.id }} names="people" />
          <hr />
          <OverPanel detail={detail} />
          <hr />
          <BeginsPanel detail={detail} />
          <hr />
          <FiledPanel detail={detail} />
          <hr />
          <VersionsPanel
            id={detail.id}
            versions={detail.versions}
            mayAdd={detail.mayChange && !detail.keyDestroyed}
          />
          <hr />
          <h2>The file</h2>
          <p className="quiet">
            Protected <Moment at={detail.protectedAt} /> with ChaCha20-Poly1305, as a standard age
            file. Its key is in the vault, wrapped by the master key; the recovery key opens the
            file without Embargo.
          </p>
          {detail.revokedAt !== null && (
            <p className="magenta">
              Revoked <Moment at={detail.revokedAt} />. The grants below are as they were.
            </p>
          )}
          {detail.keyDestroyed ? (
            <p className="magenta">Its key was destroyed: nothing opens it here again.</p>
          ) : (
            destroys && (
              <DestroyKey
                id={detail.id}
                reference={detail.reference}
                title={detail.title}
                printsMade={detail.grants.reduce((sum, grant) => sum + grant.printsMade, 0)}
                mayHaveKept={
                  new Set(
                    detail.grants
                      .filter((grant) => grant.rights.includes('keep') && grant.opens > 0)
                      .map((grant) => grant.recipientId),
                  ).size
                }
              />
            )
          )}
        </div>
      }
    />
  );
}
