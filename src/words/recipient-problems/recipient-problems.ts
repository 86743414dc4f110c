import { createTranslator } from 'use-intl/core';
import type { Language } from '@/core/base/languages';
import type { ProblemWords, RecipientProblem } from '@/contracts/problems';
import type { InAnyWords } from '@/words/in-any-words';
import { de } from '@/words/recipient-problems/de';
import { en } from '@/words/recipient-problems/en';
import { es } from '@/words/recipient-problems/es';
import { fr } from '@/words/recipient-problems/fr';
import { ja } from '@/words/recipient-problems/ja';

/** What recipients are told when something could not be done. */
export type RecipientProblemMessages = InAnyWords<typeof en>;

export const recipientProblemMessages: Readonly<Record<Language, RecipientProblemMessages>> = {
  en,
  de,
  fr,
  es,
  ja,
};

function translator(language: Language) {
  return createTranslator<typeof en>({
    locale: language,
    messages: recipientProblemMessages[language] as typeof en,
    onError: (error) => {
      throw error;
    },
  });
}
type Say = ReturnType<typeof translator>;

type Plain = Exclude<
  RecipientProblem,
  'ask-in-vain' | 'pass-on-refused' | 'code-wrong' | 'too-many-tries'
>;

/** Every problem by its sentence; a problem without one does not compile. */
function wordsBy(say: Say): ProblemWords<RecipientProblem> {
  const plain = Object.fromEntries(
    Object.entries(en.problems)
      .filter(([, message]) => typeof message === 'string')
      .map(([problem]) => [problem, () => say(`problems.${problem as Plain}`)]),
  ) as unknown as Record<Plain & keyof typeof en.problems, () => string>;
  return {
    ...plain,
    'ask-in-vain': ({ reason }) => say(`problems.ask-in-vain.${known(reason)}`),
    'pass-on-refused': ({ reason }) => say(`problems.pass-on-refused.${reason}`),
    'code-wrong': ({ left }) =>
      left > 0 ? say('problems.code-wrong.left', { left }) : say('problems.code-wrong.none'),
    'too-many-tries': ({ retryAfter }) =>
      say('problems.too-many-tries', { minutes: String(Math.ceil(retryAfter / 60)) }),
  };
}

type InVain = keyof (typeof en)['problems']['ask-in-vain'];

function known(reason: string): InVain {
  return reason in en.problems['ask-in-vain'] ? (reason as InVain) : 'other';
}

function speaker(language: Language) {
  const say = translator(language);
  return {
    /** The sentence of each problem. */
    words: wordsBy(say),
    /** Says what stands beside the problems: what is wrong with a file, or with what was entered. */
    say,
  };
}

/** What speaks to recipients of what could not be done, in each language. */
export const recipientProblems: Readonly<Record<Language, ReturnType<typeof speaker>>> = {
  en: speaker('en'),
  de: speaker('de'),
  fr: speaker('fr'),
  es: speaker('es'),
  ja: speaker('ja'),
};
