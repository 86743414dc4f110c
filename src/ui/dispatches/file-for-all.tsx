'use client';

import type { DispatchDetail, GrantRow } from '@/contracts/dispatch';
import { groupBy } from '@/core/base/group';
import { TakeFile } from '@/ui/grants/take-file';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';
import { ActsMenu } from '@/ui/shell/acts-menu';
import { Notice } from '@/ui/shell/notice';

type Props = { readonly detail: DispatchDetail };

/** One protected file of each document for everybody it was sent to, and the link in them. */
export function FileForAll({ detail }: Props) {
  const { id, sharedLink } = detail;
  const { busy, said, attempt } = useAttempt();
  const documents = [...groupBy(detail.grants, ({ documentId }) => documentId).values()].flatMap(
    ([first]) => first ?? [],
  );
  return (
    <section className="stack tight" aria-label="One file for everybody">
      <div className="row">
        <b>One file for everybody</b>
        <span className="gap" />
        {sharedLink !== null && (
          <ActsMenu
            label="Link of the file for everybody"
            disabled={busy}
            items={[
              {
                label: 'Replace link',
                act: () =>
                  void attempt(
                    () => api('POST /api/v1/dispatches/:id/links', { id }),
                    'The link in files downloaded before leads nowhere now. Download them again.',
                  ),
              },
              !sharedLink.off && {
                label: 'Switch off link',
                act: () =>
                  void attempt(
                    () => api('POST /api/v1/dispatches/:id/links/off', { id }),
                    'The link in these files leads nowhere now. Everybody’s access stays.',
                  ),
              },
            ]}
          />
        )}
      </div>
      <span className="quiet small">
        Each reader proves an email address that it was sent to, and gets what that person may do.
      </span>
      {sharedLink?.off === true ? (
        <span className="magenta">Its link is switched off.</span>
      ) : (
        documents.map((grant) => <TakeForAll key={grant.documentId} grant={grant} />)
      )}
      <Notice said={said} />
    </section>
  );
}

function TakeForAll({ grant }: { readonly grant: GrantRow }) {
  const { dispatchId, documentId, documentReference } = grant;
  return (
    <TakeFile
      of={{ dispatchId, documentId, documentReference, address: 'everybody it was sent to' }}
      label={`Download ${documentReference}`}
    />
  );
}
