import { mailHtml, mailText, type MailPart } from '@/server/mail/html';
import { zoneFormat } from '@/core/base/zone-format';
import { carriesFile, carriesLink, isInTheClear, type DeliveryForm } from '@/core/policy/delivery';

/** What a recipient is told about one dispatch. */
export type DispatchMailFacts = {
  readonly senderName: string;
  readonly organisation: string;
  readonly zone: string;
  readonly subject: string;
  /** What the sender wrote, filled in for this recipient; empty: nothing, or only behind the link. */
  readonly note: string;
  /** What the documents are called in mail. */
  readonly titles: readonly string[];
  readonly from: number | null;
  /** When each of the titles ends, in their order, as ceilings leave it; `null`: no end. */
  readonly ends: readonly (number | null)[];
  readonly link: string;
  readonly address: string;
  /** What the message brings. */
  readonly form: DeliveryForm;
};

const longIn = zoneFormat({ dateStyle: 'long', timeStyle: 'short' });

/** A moment in words, with its zone: `31 December 2026, 17:00 (Europe/Oslo)`. */
export function momentWords(moment: number, zone: string): string {
  return `${longIn(zone).format(moment)} (${zone})`;
}

/** How to get to what was sent. */
function wayIn({ form, link, address, titles }: DispatchMailFacts): string[] {
  const proof =
    `prove that ${address} is your email address. You will get a six-digit code by email; you need no account and ` +
    'nothing to install.';
  const attached =
    titles.length === 1
      ? 'It is attached, encrypted, as a PDF'
      : 'They are attached, encrypted, as PDFs';
  const toRead = [`To read, open this link and ${proof}`, link];
  if (isInTheClear(form)) return [titles.length === 1 ? 'It is attached.' : 'They are attached.'];
  if (!carriesFile(form)) return toRead;
  if (!carriesLink(form))
    return [
      `${attached} whose first page says how to open ${titles.length === 1 ? 'it' : 'each'}: ` +
        `follow its link, or point a phone at its code, and ${proof}`,
    ];
  return [...toRead, `${attached} as well; the first page leads to the same place.`];
}

function what({ titles, form }: DispatchMailFacts): string {
  const kind = isInTheClear(form) ? '' : 'protected ';
  return titles.length === 1 ? `a ${kind}document` : `${kind}documents`;
}

/** When access ends, to be read behind `until`. */
export function endsWords(ends: readonly (number | null)[], zone: string): string {
  const [first = null, ...others] = new Set(ends);
  if (others.length > 0) return 'the times named for each';
  return first === null ? 'further notice' : momentWords(first, zone);
}

function endText(end: number | null, zone: string): string {
  return end === null ? ', with no end' : `, until ${momentWords(end, zone)}`;
}

/**
 * The message that brings the link or the protected files. It names sender and organisation first
 * and asks for nothing but the address.
 */
export function dispatchMail(facts: DispatchMailFacts): {
  readonly subject: string;
  readonly body: string;
  readonly html: string;
  readonly parts: readonly MailPart[];
} {
  const [first = null] = facts.ends;
  const isSame = facts.ends.every((end) => end === first);
  const until = isSame && first !== null ? `until ${momentWords(first, facts.zone)}` : null;
  const window = [facts.from === null ? null : `from ${momentWords(facts.from, facts.zone)}`, until]
    .filter((part) => part !== null)
    .join(' ');
  const parts: MailPart[] = [
    `${facts.senderName} of ${facts.organisation} has sent you ${what(facts)}:`,
    facts.titles
      .map(
        (title, index) =>
          `  ${title}${isSame ? '' : endText(facts.ends[index] ?? null, facts.zone)}`,
      )
      .join('\n'),
    ...(facts.note === '' ? [] : [{ note: facts.note }]),
    ...wayIn(facts),
    ...(window === '' ? [] : [`You can open it ${window}.`]),
    ...(isInTheClear(facts.form)
      ? []
      : ['This is for you only: anybody else who opens it has to prove this same email address.']),
    'If you did not expect this, ask the sender in a way you already know.',
  ];
  return { subject: facts.subject, body: mailText(parts), html: mailHtml(parts), parts };
}

/** The message that brings a one-time code. It says who asked, when and from where. */
export function codeMail(facts: {
  readonly code: string;
  readonly when: number;
  readonly zone: string;
  readonly place: string;
  readonly minutes: number;
}): { readonly subject: string; readonly body: string } {
  return {
    subject: `${facts.code.slice(0, 3)} ${facts.code.slice(3)} is your code`,
    body: [
      `Your code is ${facts.code.slice(0, 3)} ${facts.code.slice(3)}`,
      `Enter it on the page that asked for it, within ${String(facts.minutes)} minutes. It works only there.`,
      `It was requested on ${momentWords(facts.when, facts.zone)}, from ${facts.place}. If ` +
        'that was not you, do nothing: without the code nobody can go on. Nobody will ' +
        'ever ask you for it.',
    ].join('\n\n'),
  };
}
