import type { Language } from '@/core/base/languages';
import { mailWords } from '@/words/mail/mail-words';

type Mail = { readonly subject: string; readonly body: string };

/** What an owner is told when somebody sent a changed file back. */
export function revisionMail(facts: {
  readonly who: string;
  readonly title: string;
  readonly note: string;
  readonly link: string;
}): Mail {
  const { who, title, note, link } = facts;
  return {
    subject: `${who} sent a changed file of “${title}” back`,
    body: [
      `${who} changed “${title}” and sent the file back. It is kept beside the document; ` +
        'nobody opens it before you accept it.',
      ...(note === '' ? [] : [`“${note}”`]),
      'Compare and answer it here:',
      link,
    ].join('\n\n'),
  };
}

type Told = {
  readonly senderName: string;
  readonly title: string;
  readonly link: string;
  readonly language: Language;
};

/** What somebody is told about the changed file that they sent back. */
export function revisionAnsweredMail(
  facts: Told & { readonly accepted: boolean; readonly words: string },
): Mail {
  const { senderName: sender, title, accepted, words, link } = facts;
  const say = mailWords(facts.language);
  return {
    subject: say('revision.subject', { title }),
    body: [
      accepted
        ? say('revision.accepted', { sender, title })
        : say('revision.declined', { sender, title }),
      ...(words === '' ? [] : [`“${words}”`]),
      link,
    ].join('\n\n'),
  };
}

/** What everybody who has a document is told when a new version takes its place. */
export function versionMail(facts: Told): Mail {
  const { senderName: sender, title, link } = facts;
  const say = mailWords(facts.language);
  return {
    subject: say('version.subject', { title }),
    body: [say('version.replaced', { sender, title }), link].join('\n\n'),
  };
}
