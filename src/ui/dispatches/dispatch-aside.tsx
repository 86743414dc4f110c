'use client';

import { MarkLines } from '@/ui/watermark/mark-line';
import Link from 'next/link';
import type { DispatchDetail } from '@/contracts/dispatch';
import { carriesFile, carriesLink, isInTheClear } from '@/core/policy/delivery';
import { StillReadablePanel } from '@/ui/still-readable/still-readable-panel';
import { AccessThenPanel } from '@/ui/access-then/access-then-panel';
import { HandedPart } from '@/ui/dispatches/handed-part';
import { PassedOnPart } from '@/ui/dispatches/passed-on-part';
import { FileForAll } from '@/ui/dispatches/file-for-all';
import { ToCarry } from '@/ui/dispatches/to-carry';
import { FormattedText } from '@/ui/words/formatted-text';
import { Note } from '@/ui/shell/notice';

type Props = { readonly detail: DispatchDetail };

/** At the side of a dispatch: what is asked, what is handed over, the message and past access. */
export function DispatchAside({
  detail,
  now,
  severalDocuments,
}: Props & { readonly now: number; readonly severalDocuments: boolean }) {
  // Who came in along with others has their link already.
  const carried = detail.grants.filter(({ kind, parent }) =>
    detail.delivery === 'by-hand' ? parent === null : kind === 'domain' || kind === 'link',
  );
  return (
    <div className="stack">
      {detail.requests > 0 && (
        <Note>
          {detail.requests === 1
            ? 'One recipient asks'
            : `Recipients ask ${String(detail.requests)} times`}{' '}
          for something. <Link href="/today">Answer on Today</Link>
        </Note>
      )}
      {isInTheClear(detail.form) && (
        <Note>
          Sent unprotected. What was mailed stays with the recipients; revoking only closes access
          here.{detail.reason !== '' && ` Why: “${detail.reason}”`}
        </Note>
      )}
      {carried.length > 0 && (
        <>
          <ToCarry grants={carried} form={detail.form} />
          {detail.mayAdd && carriesFile(detail.form) && <FileForAll detail={detail} />}
          <hr />
        </>
      )}
      <HandedPart detail={detail} />
      <PassedOnPart grants={detail.grants} now={now} />
      <Message detail={detail} />
      <h2>Watermark</h2>
      <MarkLines layers={detail.watermark} />
      <hr />
      <StillReadablePanel of={{ dispatch: detail.id }} />
      <AccessThenPanel of={{ dispatch: detail.id }} names={severalDocuments ? 'both' : 'people'} />
    </div>
  );
}

/** What went with the dispatch, in words. */
function Message({ detail: { form, delivery, note, noteInMail } }: Props) {
  const carries = carriesFile(form) && delivery === 'mail';
  if (!carries && note === '') return null;
  return (
    <>
      <h2>The message</h2>
      {carries && (
        <p>
          {carriesLink(form)
            ? 'The link, and the documents as protected files.'
            : 'The documents as protected files.'}
        </p>
      )}
      {note !== '' && (
        <div className="quiet">
          <FormattedText text={note} />
        </div>
      )}
      {note !== '' && !noteInMail && (
        <p className="quiet">Only behind the link, not in the mail.</p>
      )}
    </>
  );
}
