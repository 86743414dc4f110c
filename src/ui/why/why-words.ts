import type { ChangeOf } from '@/core/policy/changes';
import { rightNames } from '@/core/policy/right-names';
import type { Explained, NamedChange, NamedReason, NamedWay } from '@/contracts/explain';
import type { Limits } from '@/core/policy/ceiling';
import type { Conditions } from '@/core/policy/conditions';
import type { RefusalReason, RightVerdict } from '@/core/policy/decide';
import type { Right } from '@/core/policy/rights';
import { listed } from '@/core/base/listed';
import { levelOf } from '@/ui/words/limit-words';

/** Why somebody cannot open a document, as staff read it. */
export const refusedWords: Record<RefusalReason, string> = {
  'identity-not-proven': 'the email address has not been proven',
  'not-addressed': 'nothing gives them access',
  'recipient-blocked': 'the person is blocked',
  'document-revoked': 'the whole document is revoked',
  'not-yet': 'the window has not begun',
  expired: 'access has ended',
  revoked: 'access was revoked',
  'key-destroyed': 'the document’s key was destroyed',
  'prove-again': 'the email address must be proven again',
  'passkey-needed': 'a passkey has to be used as well',
  'device-not-accepted': 'only a remembered device is accepted',
  'too-many-devices': 'as many devices as agreed have been used',
  'network-not-allowed': 'it does not open from this network',
  'place-not-allowed': 'it does not open from this country',
  'hours-not-allowed': 'it is outside the agreed hours',
  'opens-used-up': 'it was opened as often as agreed',
  'condition-unknown': 'a condition is not understood here',
  'read-not-allowed': 'no grant gives them read',
};

const conditionNames: Record<keyof Conditions | 'unknown', string> = {
  opens: 'number of opens',
  within: 'time from the first open',
  countries: 'countries',
  networks: 'networks',
  hours: 'hours',
  rememberedDevice: 'kind of device',
  passkey: 'second proof by passkey',
  devices: 'number of devices',
  proveEvery: 'proof of the email address',
  offline: 'reading on their own machine',
  captureDeterrent: 'capture deterrent',
  passOn: 'limits on passing on',
  unknown: 'condition that is not understood',
};
const limitNames: Record<keyof Limits, string> = {
  rights: 'rights',
  days: 'days',
  prints: 'prints',
  opens: 'opens',
  countries: 'countries',
  networks: 'networks',
  passkey: 'second proof by passkey',
  offline: 'reading on their own machine',
};
function grantName(name: string): string {
  return name === '' ? 'the new grant' : `the grant of ${name}`;
}

type ChangeWords = {
  [K in NamedChange['kind']]: (grant: string, change: ChangeOf<NamedChange, K>) => string;
};

/** What to do, as one would say it to the person who does it. */
const changeWordsOf: ChangeWords = {
  'prove-address': () => 'have them prove their email address again',
  'use-passkey': () => 'have them use their passkey',
  unblock: () => 'unblock the person',
  'reinstate-document': () => 'reinstate the document',
  'give-access': () => 'give them the document',
  'reinstate-grant': (grant) => `reinstate ${grant}`,
  'extend-grant': (grant) => `set a later end for ${grant}`,
  'begin-sooner': (grant) => `set an earlier start for ${grant}`,
  'give-more-prints': (grant) => `allow more prints on ${grant}`,
  'unlimit-prints': (grant) => `remove the limit on prints from ${grant}`,
  'revoke-grant': (grant) => `revoke ${grant}`,
  'give-right': (grant, { right }) => `give ${rightNames[right]} on ${grant}`,
  'take-right': (grant, { right }) => `take ${rightNames[right]} from ${grant}`,
  'change-condition': (grant, { condition }) =>
    `change the ${conditionNames[condition]} of ${grant}`,
  'raise-ceiling': (_grant, { ceiling, limit, name }) =>
    `raise the ceiling on ${limitNames[limit]} of ${levelOf({ level: ceiling.level, name })}`,
};

function changeWords(change: NamedChange): string {
  return changeWordsOf[change.kind](grantName(change.name), change as never);
}

/** The rule by name: `the ceiling of the folder Hull 412`, `grant D-0002`. */
export function ruleWords({ level, name, setAt, ended }: NamedReason): string {
  if (level === 'grant') return name === '' ? 'the grant' : `the grant of ${name}`;
  if (level === 'identity') return 'the proof of their address';
  if (level === 'recipient') return 'the person';
  if (level === 'organisation') return 'the ceiling of the organisation';
  return ended || setAt === null ? `the ${level}` : `the ceiling of the ${level} ${name}`;
}

/** What the person named did: gave the grant, set the rule, or ended access. */
export function deedOf({ level, ended }: NamedReason): string {
  if (ended) return 'ended by';
  return level === 'grant' ? 'given by' : 'set by';
}

/** What would turn the answer round: everything that has to be done together. */
export function remedyOf({ changes }: NamedReason): string {
  if (changes.length === 0) return 'Nothing can change it.';
  const said = listed(changes.map(changeWords));
  if (changes.length === 1) return `To change this: ${said}.`;
  return changes.length === 2
    ? `To change this, both are needed: ${said}.`
    : `To change this, all ${String(changes.length)} are needed: ${said}.`;
}

/** The rule behind one right, short where the grant itself decides: its own line says by whom and when. */
export function rightRule(
  verdict: RightVerdict | null,
  { level, name }: NamedReason,
): string | null {
  if (level !== 'grant' || verdict === null) return null;
  const grant = name === '' ? 'the grant' : name;
  if (verdict.granted) return `by ${grant}`;
  if (verdict.why === 'prints-used-up') return `all prints of ${grant} are made`;
  if (verdict.why === 'needs-keep') return `${grant} lets nobody keep a copy to change`;
  return verdict.why === 'needs-unlimited-print'
    ? `${grant} limits prints, and a kept file can be printed at will`
    : `${grant} does not give it`;
}

/** What a person may do by one right: `may print 2 more copies`, `may not print`. */
export function verdictWords(right: Right, verdict: RightVerdict | null): string {
  const verb: Record<Right, string> = {
    read: 'read',
    comment: 'comment',
    copy: 'copy text',
    print: 'print',
    revise: 'send a revised file',
    keep: 'keep a copy',
    'pass-on': 'pass it on',
  };
  if (verdict?.granted !== true) return `may not ${verb[right]}`;
  if (right !== 'print' || verdict.printsLeft === null) return `may ${verb[right]}`;
  return `may print ${String(verdict.printsLeft)} more ${verdict.printsLeft === 1 ? 'copy' : 'copies'}`;
}

/** Where two answers differ, a sentence each: what it is first, and what it is then. */
export function differences(
  first: Explained,
  then: Explained,
  textOf: (moment: number) => string,
): string[] {
  const opens = ({ opens: can, reason }: Explained): string =>
    can ? 'can open it' : `cannot open it: ${refusedWords[reason ?? 'not-addressed']}`;
  const end = ({ until }: Explained): string =>
    until === null ? 'has no end' : `ends ${textOf(until)}`;
  const said: string[] = [];
  if (opens(first) !== opens(then)) said.push(`${opens(first)} → ${opens(then)}`);
  if (first.opens && then.opens && first.until !== then.until)
    said.push(`${end(first)} → ${end(then)}`);
  for (const { right, verdict } of first.rights) {
    const [before, after] = [
      verdictWords(right, verdict),
      verdictWords(right, then.rights.find((each) => each.right === right)?.verdict ?? null),
    ];
    if (first.opens && then.opens && before !== after) said.push(`${before} → ${after}`);
  }
  return said;
}

/** Behind an end: what sets it, where the grant itself does not. */
export function endedByWords(endedBy: NamedWay['endedBy']): string {
  if (endedBy === null) return '';
  if (endedBy.kind === 'ceiling') return `, by the ceiling of ${endedBy.name}`;
  return endedBy.kind === 'span'
    ? ', counted from the first open'
    : ', with the grant it was passed on from';
}
