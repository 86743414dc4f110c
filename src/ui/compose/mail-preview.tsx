'use client';

import type { Composed } from '@/ui/compose/use-composed';
import { useAsked } from '@/ui/http/use-asked';
import type { GridRow } from '@/ui/recipients/grid-view';
import { Problem } from '@/ui/shell/notice';
import { languageName } from '@/ui/words/language-words';
import { FormattedText } from '@/ui/words/formatted-text';

/** The message as one recipient gets it. */
export function MailPreviewPart({
  composed: { work, subject, note, way },
  each: { row, known, terms },
}: {
  readonly composed: Composed;
  readonly each: GridRow;
}) {
  const { answer, problem } = useAsked('POST /api/v1/message/preview', {
    documents: work.sheet.documents.filter((id) => !row.without.includes(id)),
    recipient: {
      address: row.key,
      name: row.name || (known?.name ?? ''),
      organisation: row.organisation || (known?.organisation ?? ''),
    },
    terms,
    subject,
    note,
    noteInMail: way.noteInMail,
    form: way.form,
  });
  return (
    <section className="stack mail-preview" aria-label="Preview of the mail">
      <Problem words={problem} />
      {answer !== null && (
        <>
          <p>
            <span className="quiet">
              To {row.key}
              {answer.language === 'en' ? '' : `, in ${languageName(answer.language)}`}
            </span>
            <br />
            <b>{answer.subject === '' ? 'No subject yet' : answer.subject}</b>
          </p>
          <div lang={answer.language}>
            {answer.parts.map(({ text, note: isNote }, at) =>
              isNote ? (
                <div key={at}>
                  <FormattedText text={text} />
                </div>
              ) : (
                <p key={at} className="keep-lines">
                  {text}
                </p>
              ),
            )}
          </div>
        </>
      )}
    </section>
  );
}
