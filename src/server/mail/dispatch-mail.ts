import { mailHtml, mailText, type MailPart } from '@/server/mail/html';
import type { Language } from '@/core/base/languages';
import { mailWords } from '@/words/mail/mail-words';
import { momentWords } from '@/server/mail/moment-words';
import type { Right } from '@/core/policy/rights';
import { readerCatalogues } from '@/words/reader/reader-catalogues';
import { readerWords } from '@/words/reader/reader-words';
import { verbsIn } from '@/words/reader/verbs-in';
import { carriesFile, carriesLink, isInTheClear, type DeliveryForm } from '@/core/policy/delivery';

/** What a recipient is told about one dispatch. */
export type DispatchMailFacts = {
  readonly senderName: string;
  readonly organisation: string;
  readonly zone: string;
  readonly language: Language;
  readonly subject: string;
  /** What the sender wrote, filled in for this recipient; empty: nothing, or only behind the link. */
  readonly note: string;
  /** What the markings of the documents have said. */
  readonly byMarking: readonly string[];
  /** What the documents are called in mail. */
  readonly titles: readonly string[];
  /** What each of the titles may be used for alike; null: it differs, or a file in the clear allows all. */
  readonly rights: readonly Right[] | null;
  readonly from: number | null;
  /** When each of the titles ends, in their order, as ceilings leave it; `null`: no end. */
  readonly ends: readonly (number | null)[];
  readonly link: string;
  readonly address: string;
  /** What the message brings. */
  readonly form: DeliveryForm;
};

/** How to get to what was sent. */
function wayIn(facts: DispatchMailFacts): MailPart[] {
  const { form, link, address, titles } = facts;
  const say = mailWords(facts.language);
  const count = titles.length;
  if (isInTheClear(form)) return [say('sent.attachedClear', { count })];
  if (!carriesLink(form)) return [say('sent.attached', { count, address })];
  const toRead = [say('sent.toRead', { address }), { link, label: say('sent.open', { count }) }];
  return carriesFile(form) ? [...toRead, say('sent.attachedAsWell', { count })] : toRead;
}

/** What may be done with what was sent, where it is the same for all of it. */
function rightsLine({ rights, language }: DispatchMailFacts): string[] {
  if (rights === null) return [];
  const verbs = verbsIn(language, readerWords(language, readerCatalogues[language]), rights);
  return [mailWords(language)('sent.may', { verbs })];
}

/** How to tell that it is genuine, before anything is followed. */
function genuineLine({ form, link, language }: DispatchMailFacts): string[] {
  if (!carriesLink(form) || !URL.canParse(link)) return [];
  return [mailWords(language)('sent.genuine', { host: new URL(link).host })];
}

/** When access ends, to be read behind `until`. */
export function endsWords(
  ends: readonly (number | null)[],
  zone: string,
  language: Language,
): string {
  const [first = null, ...others] = new Set(ends);
  const say = mailWords(language);
  if (others.length > 0) return say('ends.several');
  return first === null ? say('ends.none') : momentWords(first, zone, language);
}

function titleLine(facts: DispatchMailFacts, title: string, end: number | null): string {
  const say = mailWords(facts.language);
  return end === null
    ? say('sent.titleNoEnd', { title })
    : say('sent.titleUntil', { title, end: momentWords(end, facts.zone, facts.language) });
}

/** From when until when it opens, where that is the same for all; `null`: nothing is to be said. */
function windowLine({ from, ends, titles, zone, language }: DispatchMailFacts): string | null {
  const [first = null] = ends;
  const say = mailWords(language);
  const count = titles.length;
  const words = (moment: number): string => momentWords(moment, zone, language);
  const until = isSame(ends) && first !== null ? words(first) : null;
  if (from !== null && until !== null)
    return say('sent.fromUntil', { count, from: words(from), until });
  if (from !== null) return say('sent.from', { count, from: words(from) });
  return until === null ? null : say('sent.until', { count, until });
}

function isSame(ends: readonly (number | null)[]): boolean {
  return ends.every((end) => end === ends[0]);
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
  const { senderName: sender, organisation, titles, ends, note } = facts;
  const say = mailWords(facts.language);
  const about = { sender, organisation, count: titles.length };
  const isClear = isInTheClear(facts.form);
  const parts: MailPart[] = [
    isClear ? say('sent.introClear', about) : say('sent.intro', about),
    titles
      .map((title, n) => (isSame(ends) ? title : titleLine(facts, title, ends[n] ?? null)))
      .map((line) => `  ${line}`)
      .join('\n'),
    ...(note === '' ? [] : [{ note }]),
    ...facts.byMarking,
    ...wayIn(facts),
    ...rightsLine(facts),
    windowLine(facts) ?? [],
    isClear ? [] : say('sent.onlyYou'),
    ...genuineLine(facts),
    say('sent.unexpected'),
  ].flat();
  return {
    subject: facts.subject,
    body: mailText(parts),
    html: mailHtml(parts, facts.language),
    parts,
  };
}

/** The message that brings a one-time code. It says who asked, when and from where. */
export function codeMail(facts: {
  readonly code: string;
  readonly when: number;
  readonly zone: string;
  /** The network it was asked for from, and the place that is near it; `null`: not known. */
  readonly network: string;
  readonly near: string | null;
  readonly minutes: number;
  readonly language: Language;
}): { readonly subject: string; readonly body: string } {
  const { network, near, zone, language, minutes } = facts;
  const say = mailWords(language);
  const code = `${facts.code.slice(0, 3)} ${facts.code.slice(3)}`;
  const place = near === null ? network : say('code.near', { network, place: near });
  return {
    subject: say('code.subject', { code }),
    body: [
      say('code.code', { code }),
      say('code.enter', { minutes: String(minutes) }),
      say('code.asked', { when: momentWords(facts.when, zone, language), place }),
    ].join('\n\n'),
  };
}
