import { bareDomain } from '@/core/policy/address';
import type { DocumentRow } from '@/contracts/document';
import { MAX_WATERMARK, unknownTokens } from '@/core/watermark/tokens';
import type { Wider } from '@/ui/compose/compose-check';
import type { TermsDraft } from '@/ui/terms-fields/switch-right';
import type { RecipientDraft } from '@/ui/recipients/use-recipients';

type Draft = {
  readonly documents: readonly DocumentRow[];
  readonly people: readonly RecipientDraft[];
  readonly wider: Wider;
  readonly unreadable: readonly string[];
  readonly terms: TermsDraft;
  readonly subject: string;
  readonly watermark: string;
  readonly now: number;
  readonly mail: boolean;
};

const MOST_NAMED = 5;

function unreadableText(unreadable: readonly string[]): string | null {
  if (unreadable.length === 0) return null;
  const more = unreadable.length - MOST_NAMED;
  const named = unreadable.slice(0, MOST_NAMED).join(', ');
  return `Not an email address: ${named}${more > 0 ? ` and ${String(more)} more` : ''}.`;
}

function problemsOfDocuments(documents: readonly DocumentRow[]): (string | null)[] {
  const revoked = documents.find((document) => document.revoked);
  return [
    documents.length === 0 ? 'No document is chosen.' : null,
    revoked === undefined ? null : `“${revoked.title}” is revoked, so nobody could open it.`,
  ];
}

function problemsOfAddressees(people: readonly RecipientDraft[], wider: Wider): (string | null)[] {
  const addressed = people.length + wider.domains.length + wider.groups.length;
  const open = wider.domains.filter(({ check }) => check?.publicMail === true);
  return [
    addressed === 0 && !wider.openLink ? 'There is no recipient, so nobody could open it.' : null,
    ...open.map(
      ({ domain }) =>
        `Anybody can have an email address at ${bareDomain(domain)}: name the people instead.`,
    ),
  ];
}

function isOver(until: number | null | undefined, now: number): boolean {
  return until != null && until <= now;
}

function problemsOfEnds(
  { from, until }: TermsDraft,
  people: readonly RecipientDraft[],
  now: number,
): (string | null)[] {
  return [
    isOver(until, now) ? 'The end is in the past, so nobody could open it.' : null,
    from !== null && isOver(until, from) ? 'The end is before the start.' : null,
    ...people
      .filter(({ terms }) => isOver(terms?.until, now))
      .map(({ address }) => `The end for ${address} is in the past.`),
  ];
}

/** What keeps it from going out, in words; empty: it can go. */
export function problemsOf({
  documents,
  people,
  wider,
  unreadable,
  terms,
  subject,
  watermark,
  now,
  mail,
}: Draft): string[] {
  return [
    mail ? null : 'No mail server is set up here: set MAIL_URL and MAIL_FROM and start again.',
    ...problemsOfDocuments(documents),
    ...problemsOfAddressees(people, wider),
    unreadableText(unreadable),
    ...problemsOfEnds(terms, people, now),
    subject.trim() === '' ? 'The subject is missing.' : null,
    watermark.length > MAX_WATERMARK ? 'The watermark is too long.' : null,
    ...unknownTokens(watermark).map((name) => `{${name}} is not a piece of a watermark.`),
  ].filter((problem) => problem !== null);
}
