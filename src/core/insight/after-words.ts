import { toUtcText } from '@/core/base/time';
import { counted } from '@/core/base/counted';
import { bareDomain } from '@/core/policy/address';

type Way = {
  readonly by: 'own' | 'group' | 'passed-on' | 'domain';
  /** The group, who passed it on, or the domain. */
  readonly name: string;
  readonly dispatch: string;
};

/** How somebody still comes in. */
export function wayText({ by, name, dispatch }: Way): string {
  switch (by) {
    case 'own':
      return `their own access by ${dispatch}`;
    case 'group':
      return `the group ${name}, by ${dispatch}`;
    case 'passed-on':
      return `passed on by ${name}, by ${dispatch}`;
    case 'domain':
      return `everyone at ${bareDomain(name)}, by ${dispatch}`;
  }
}

type Taken = {
  readonly prints: number;
  readonly textSent: boolean;
  readonly textCopied: boolean;
  readonly inTheClear: boolean;
};

/** What of a document somebody has that no revocation reaches; when they kept a copy is told beside it. */
export function takenText({ prints, textSent, textCopied, inTheClear }: Taken): string[] {
  return [
    ...(inTheClear ? ['has the document in the clear'] : []),
    ...(prints === 0 ? [] : [`${counted(prints, 'print')} made`]),
    ...(textCopied ? ['text copied'] : textSent ? ['text of pages sent'] : []),
  ];
}

/** A copy that somebody kept, in a statement that is read anywhere. */
export function keptText(keptAt: number): string {
  return `a copy kept at ${toUtcText(keptAt)}`;
}

/** What the statement about a revocation is called. */
export function statementName(reference: string): string {
  return `after the revocation of ${reference}`;
}
