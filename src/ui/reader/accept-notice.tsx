'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import type { NoticeAsked } from '@/contracts/reader-notice';
import { LANGUAGES, type Language } from '@/core/base/languages';
import { sentenceOf } from '@/ui/http/call';
import { Opening, Stuck } from '@/ui/reader/before-opening';
import { LanguageChoice } from '@/ui/reader/language-choice';
import { leave } from '@/ui/reader/leave';
import { ReaderBrand } from '@/ui/shell/reader-brand';
import { readerCall } from '@/ui/reader/reader-call';
import { useSigned } from '@/ui/reader/use-signed';
import { Problem } from '@/ui/shell/notice';
import { useWords } from '@/ui/words/use-words';

type Props = {
  readonly onAccepted: () => void;
  readonly onBack: (() => void) | null;
};

/** The language of the page, where the notice is in it; else the first one that it is in. */
function languageIn({ texts }: NoticeAsked, wanted: Language): Language {
  const order: readonly Language[] = [wanted, ...LANGUAGES];
  return order.find((language) => texts[language] !== undefined) ?? wanted;
}

/** What has to be accepted before anything is opened. */
export function AcceptNotice(props: Props) {
  const { found, failed } = useSigned<NoticeAsked>('/api/v1/reader/notice');
  if (failed !== null) return <Stuck words={sentenceOf(failed)} onLeave={() => void leave()} />;
  return found === null ? <Opening /> : <Notice {...props} notice={found} />;
}

function Notice({ notice, onAccepted, onBack }: Props & { readonly notice: NoticeAsked }) {
  const { language, say } = useWords();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const shown = languageIn(notice, language);
  const accept = async () => {
    setBusy(true);
    setProblem(null);
    try {
      await readerCall('POST', '/api/v1/reader/notice', {
        version: notice.version,
        language: shown,
      });
      onAccepted();
    } catch (error) {
      setProblem(sentenceOf(error));
      setBusy(false);
    }
  };
  return (
    <main className="entry shared">
      <ReaderBrand />
      <h1>{say('notice.heading')}</h1>
      <p className="quiet above-6">{say('notice.intro', { organisation: notice.organisation })}</p>
      <div className="note" lang={shown} dir="auto">
        {notice.texts[shown]}
      </div>
      <p className="quiet above-10">{say('notice.kept')}</p>
      <Problem words={problem} />
      <div className="row above-10">
        <Button variant="contained" disabled={busy} onClick={() => void accept()}>
          {say('notice.accept')}
        </Button>
        {onBack !== null && <Button onClick={onBack}>{say('refusal.back')}</Button>}
      </div>
      <LanguageChoice />
    </main>
  );
}
