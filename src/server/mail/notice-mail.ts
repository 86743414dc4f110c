import { refusalName } from '@/core/policy/refusal-names';
import { kindsOf, type NoticeKind, type Opened } from '@/core/insight/notices';
import type { Language } from '@/core/base/languages';
import { momentWords } from '@/server/mail/moment-words';
import { mailWords } from '@/words/mail/mail-words';

type Mail = { readonly subject: string; readonly body: string };

/** Lines that one message holds; the rest is a number and a link. */
const MOST_LINES = 40;

/** Access of a dispatch that ends soon. */
export type EndingSoon = {
  readonly reference: string;
  readonly subject: string;
  readonly people: number;
  readonly until: number;
};

function openLine(each: Opened, kinds: readonly NoticeKind[], zone: string): string {
  const { at, who, organisation, linkOf, place, title, dispatch, reason } = each;
  const from = organisation === '' ? '' : ` (${organisation})`;
  const byLink = linkOf === '' ? '' : `, by the link of ${linkOf},`;
  const whom = `${who}${from}${byLink}`;
  const where = place === '' ? '' : ` from ${place}`;
  const told = kindsOf(each).filter((kind) => kinds.includes(kind));
  const what = told.includes('refused')
    ? `tried to open “${title}”${where} and was refused: ${refusalName(reason)}`
    : `opened “${title}”${told.includes('first-open') ? ' for the first time' : ''}${where}` +
      (told.includes('new-place') ? ', a new place for their organisation' : '') +
      (told.includes('new-device') ? ', on a device they had not used before' : '');
  return `${momentWords(at, zone)}: ${whom} ${what}. ${dispatch}`;
}

function endingLine({ reference, subject, people, until }: EndingSoon, zone: string): string {
  return (
    `${momentWords(until, zone)}: what ${String(people)} ` +
    `${people === 1 ? 'person was' : 'people were'} given by “${subject}” ends. ${reference}`
  );
}

/** What an owner is told of what is theirs: as it happens, or once a day. */
export function noticeMail(facts: {
  readonly opened: readonly Opened[];
  readonly kinds: readonly NoticeKind[];
  readonly ending: readonly EndingSoon[];
  readonly daily: boolean;
  readonly zone: string;
  readonly link: string;
}): Mail {
  const { opened, kinds, ending, daily, zone, link } = facts;
  const lines = [
    ...ending.map((each) => endingLine(each, zone)),
    ...opened.map((each) => openLine(each, kinds, zone)),
  ];
  const [only] = opened;
  const subject = daily
    ? 'Your documents since yesterday'
    : lines.length === 1
      ? only === undefined
        ? `“${ending[0]?.subject ?? ''}” ends soon`
        : `“${only.title}”: ${only.granted ? 'opened' : 'refused'}`
      : `${String(lines.length)} things about your documents`;
  const more = lines.length - MOST_LINES;
  return {
    subject,
    body: [
      ...lines.slice(0, MOST_LINES),
      ...(more > 0 ? [`And ${String(more)} more.`] : []),
      'Everything is in the ledger:',
      link,
      'You choose on your own page what you are told, and when.',
    ].join('\n\n'),
  };
}

/** What a recipient is told before what they were sent ends. */
export function endSoonMail(facts: {
  readonly senderName: string;
  readonly organisation: string;
  readonly ends: readonly { readonly title: string; readonly until: number }[];
  readonly zone: string;
  readonly link: string;
  readonly language: Language;
}): Mail {
  const { senderName: sender, organisation, ends, zone, link, language } = facts;
  const say = mailWords(language);
  return {
    subject: say('ending.subject', { count: ends.length, title: ends[0]?.title ?? '' }),
    body: [
      say('ending.intro', { sender, organisation }),
      ...ends.map(({ title, until }) =>
        say('ending.each', { title, until: momentWords(until, zone, language) }),
      ),
      say('ending.more'),
      link,
    ].join('\n\n'),
  };
}

/** A signed checkpoint for a keeper outside, as it is to be kept. */
export function checkpointMail(facts: {
  readonly organisation: string;
  readonly text: string;
  readonly size: number;
}): Mail {
  return {
    subject: `Ledger checkpoint of ${facts.organisation}: ${String(facts.size)} entries`,
    body: [
      'Keep this message. It states what the ledger was, so that it can be compared later: ' +
        'paste it on the Ledger screen under Verify, or give it to the command line.',
      facts.text.trimEnd(),
    ].join('\n\n'),
  };
}
