'use client';

import Button from '@mui/material/Button';
import { putNoticeInput, type NoticeView } from '@/contracts/reader-notice';
import { counted } from '@/core/base/counted';
import { LANGUAGES, type Language } from '@/core/base/languages';
import { FormText } from '@/ui/forms/form-fields';
import { useContractForm } from '@/ui/forms/use-contract-form';
import { api } from '@/ui/http/api';
import type { Attempt } from '@/ui/http/use-attempt';

const NAMES: Readonly<Record<Language, string>> = {
  en: 'In English',
  de: 'In German',
  fr: 'In French',
  es: 'In Spanish',
  ja: 'In Japanese',
};

function standing({ version, texts, accepted }: NoticeView): string {
  if (Object.keys(texts).length === 0) return 'Nobody is asked to accept anything.';
  return `Wording ${String(version)}: accepted by ${counted(accepted, 'person', 'people')}.`;
}

/** What recipients are asked to accept before they open anything for the first time. */
export function NoticePart({
  notice,
  attempt,
}: {
  readonly notice: NoticeView;
  readonly attempt: Attempt['attempt'];
}) {
  const { form, busy, onSubmit } = useContractForm({
    schema: putNoticeInput,
    start: {
      texts: Object.fromEntries(
        LANGUAGES.map((language) => [language, notice.texts[language] ?? '']),
      ),
    },
    send: (input) => api('POST /api/v1/settings/notice', input),
    done: ({ texts }) =>
      Object.keys(texts).length === 0
        ? 'Nobody is asked to accept anything from now on.'
        : 'Everybody is asked to accept this before they open something anew.',
    attempt,
  });
  return (
    <section className="stack part-form" aria-label="Notice">
      <h2>Notice</h2>
      <p className="quiet">
        What recipients accept before they open anything. {standing(notice)} Each acceptance is in
        the ledger, with the wording and its language. Changed words are asked for again. A
        recipient whose language is missing sees the first one that is there.
      </p>
      <form className="stack" noValidate onSubmit={onSubmit}>
        {LANGUAGES.map((language) => (
          <FormText
            key={language}
            control={form.control}
            name={`texts.${language}`}
            label={NAMES[language]}
            multiline
          />
        ))}
        <div className="row">
          <Button type="submit" disabled={busy || !form.formState.isDirty}>
            Save notice
          </Button>
        </div>
      </form>
    </section>
  );
}
