'use client';

import Link from 'next/link';
import type { DocumentDetail } from '@/contracts/document-detail';
import { DocumentAside } from '@/ui/documents/document-aside';
import { DocumentHead } from '@/ui/documents/document-head';
import { personName, stateOf } from '@/ui/grants/grant-words';
import { GrantsSurface } from '@/ui/grants/grants-surface';
import { Empty } from '@/ui/shell/empty';
import { sizeText } from '@/ui/words/size-words';
import { pagesText } from '@/ui/words/pages-words';

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
  const live = detail.grants.filter((grant) => stateOf(grant, now) === 'live');
  const summary =
    `${pagesText(detail.pages)} · ${sizeText(detail.bytes)} · owned by ` +
    `${detail.ownerName} · ${openWords(detail.reached)}`;
  return (
    <GrantsSurface
      head={
        <DocumentHead
          detail={detail}
          summary={summary}
          people={[...new Set(live.map(personName))]}
        />
      }
      grants={detail.grants}
      now={now}
      showDocument={false}
      empty={
        <Empty title="Nobody has access to this document">
          <Link href={`/compose?document=${detail.id}`}>Compose a dispatch</Link>
        </Empty>
      }
      aside={<DocumentAside detail={detail} now={now} />}
    />
  );
}
