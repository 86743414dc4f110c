import type { Explained, NamedReason } from '@/contracts/explain';
import type { Remedy } from '@/core/policy/explain';
import type { RefusalReason, RightVerdict } from '@/core/policy/decide';
import type { Right } from '@/core/policy/rights';

/** Why somebody cannot open a document, as staff read it. */
export const refusedWords: Record<RefusalReason, string> = {
  'identity-not-proven': 'the address has not been proven', 'not-addressed': 'nothing gives them access', 'recipient-blocked': 'the person is blocked', 'document-revoked': 'the whole document is revoked', 'not-yet': 'the window has not begun',
  expired: 'access has ended', revoked: 'access was revoked', 'key-destroyed': 'the document’s key was destroyed', 'prove-again': 'the address must be proven again', 'device-not-accepted': 'only a device that is kept is accepted', 'too-many-devices': 'as many devices as agreed have been used',
  'network-not-allowed': 'it does not open from this network', 'place-not-allowed': 'it does not open from this country', 'hours-not-allowed': 'it is outside the agreed hours', 'opens-used-up': 'it was opened as often as agreed', 'condition-unknown': 'a condition is not understood here', 'read-not-allowed': 'no grant gives them read',
};

const remedyWords: Record<Remedy, string> = {
  'prove-address': 'They prove their address again.', unblock: 'Unblocking the person would change it.', 'reinstate-document': 'Reinstating the document would change it.', 'reinstate-grant': 'Reinstating the grant would change it.', 'extend-grant': 'A later end would change it.',
  'begin-sooner': 'An earlier start would change it.', 'give-right': 'Giving the right would change it.', 'give-more-prints': 'More prints would change it.', 'unlimit-prints': 'Prints without a limit would change it.', 'raise-ceiling': 'Only raising that ceiling would change it; an administrator does so under Terms.',
  'change-condition': 'Changing the grant’s conditions would change it.', 'give-access': 'Giving them the document would change it.', 'take-right': 'Taking the right from that grant would change it.', 'revoke-grant': 'Revoking that grant would change it.', nothing: 'Nothing can change it.',
};

/** The rule by name: `the ceiling of the folder Hull 412`, `grant D-0002`. */
export function ruleWords({ level, name, remedy }: NamedReason): string {
  if (level === 'grant') return name === '' ? 'the grant' : `the grant of ${name}`;
  if (level === 'identity') return 'the proof of their address';
  if (level === 'recipient') return 'the person';
  if (level === 'organisation') return 'the ceiling of the organisation';
  return remedy !== 'raise-ceiling' ? `the ${level}` : `the ceiling of the ${level} ${name}`;
}

const ENDED: ReadonlySet<Remedy> = new Set<Remedy>(['reinstate-grant', 'reinstate-document', 'unblock', 'nothing']);

/** What whoever is named did: set the rule, or ended access. */
export function deedOf({ remedy }: NamedReason): string {
  return ENDED.has(remedy) ? 'ended by' : 'set by';
}

export function remedyOf({ remedy }: NamedReason): string {
  return remedyWords[remedy];
}

/** The rule behind one right, short where the grant itself decides: its own line says by whom and when. */
export function rightRule(verdict: RightVerdict | null, { level, name }: NamedReason): string | null {
  if (level !== 'grant' || verdict === null) return null;
  const grant = name === '' ? 'the grant' : name;
  if (verdict.granted) return `by ${grant}`;
  if (verdict.why === 'prints-used-up') return `all prints of ${grant} are made`;
  return verdict.why === 'needs-unlimited-print' ? `${grant} limits prints, and a kept file can be printed at will` : `${grant} does not give it`;
}

/** What a person may do by one right: `may print 2 more copies`, `may not print`. */
export function verdictWords(right: Right, verdict: RightVerdict | null): string {
  const verb: Record<Right, string> = { read: 'read', comment: 'comment', copy: 'copy text', print: 'print', revise: 'send a revised file', keep: 'keep a copy', 'pass-on': 'pass it on' };
  if (verdict?.granted !== true) return `may not ${verb[right]}`;
  if (right !== 'print' || verdict.printsLeft === null) return `may ${verb[right]}`;
  return `may print ${String(verdict.printsLeft)} more ${verdict.printsLeft === 1 ? 'copy' : 'copies'}`;
}

/** Where two answers differ, a sentence each: what it is first, and what it is then. */
export function differences(first: Explained, then: Explained, textOf: (moment: number) => string): string[] {
  const opens = ({ opens: can, reason }: Explained): string => (can ? 'can open it' : `cannot open it: ${refusedWords[reason ?? 'not-addressed']}`);
  const end = ({ until }: Explained): string => (until === null ? 'has no end' : `ends ${textOf(until)}`);
  const said: string[] = [];
  if (opens(first) !== opens(then)) said.push(`${opens(first)} → ${opens(then)}`);
  if (first.opens && then.opens && first.until !== then.until) said.push(`${end(first)} → ${end(then)}`);
  for (const { right, verdict } of first.rights) {
    const [before, after] = [verdictWords(right, verdict), verdictWords(right, then.rights.find((each) => each.right === right)?.verdict ?? null)];
    if (first.opens && then.opens && before !== after) said.push(`${before} → ${after}`);
  }
  return said;
}
