import type { Fact } from '@/core/insight/fact';
import type { Json } from '@/core/ledger/canonical';
import { conditionLines } from '@/core/policy/condition-lines';
import { parseTerms, RIGHTS } from '@/core/policy/rights';
import { rightsLine } from '@/core/policy/rights-line';

/** How a reader is told of ids and moments. */
export type Words = {
  readonly nameOf: (id: string) => string;
  readonly moment: (at: number) => string;
};
type JsonObject = Readonly<Record<string, Json>>;

/** What the members of a change are called. */
const labels: Readonly<Record<string, string>> = {
  title: 'Title',
  folderId: 'Folder',
  markingId: 'Marking',
  ownerId: 'Owner',
  deputyId: 'Deputy',
  attributes: 'Attributes',
  reference: 'Reference',
  rights: 'Rights',
  days: 'Days',
  prints: 'Prints',
  opens: 'Opens',
  countries: 'Countries',
  networks: 'IP address ranges',
  watermark: 'Watermark',
  conditions: 'Conditions',
  name: 'Name',
  zone: 'Zone',
  language: 'Language',
  parent: 'Inside',
  meaning: 'Meaning',
  domains: 'Domains',
  folders: 'Folders',
  reasonsAsked: 'Reasons asked for',
  endsTold: 'Days before an end that recipients are told',
  checkpointsTo: 'Checkpoints mailed to',
  checkpointsOpen: 'Checkpoints open to keepers',
  heldFor: 'Minutes a dispatch is held back',
  ownDomains: 'Own domains',
  mailColour: 'Colour of mail',
  mailWords: 'Said in mail',
  mailSignature: 'Signature of mail',
  'first-open': 'Notice of first opens',
  refused: 'Notice of refusals',
  'new-place': 'Notice of new places',
  'new-device': 'Notice of new devices',
  ending: 'Notice of access ending soon',
  passOn: 'Passing on',
};

export function text(value: Json | undefined): string {
  return typeof value === 'string' || typeof value === 'number' ? String(value) : '';
}

export function number(value: Json | undefined): number {
  return typeof value === 'number' ? value : 0;
}

export function isObject(value: Json | undefined): value is JsonObject {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** A value in words: ids by their names, nothing as `none`. */
export function valueWords(value: Json, words: Words): string {
  if (value === null || value === '') return 'none';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'number') return String(value);
  if (typeof value === 'string') return words.nameOf(value);
  if (Array.isArray(value))
    return (value as readonly Json[]).map((each) => valueWords(each, words)).join(', ');
  const members = Object.entries(value);
  return members.length === 0
    ? 'none'
    : members.map(([key, each]) => `${labels[key] ?? key}: ${valueWords(each, words)}`).join(', ');
}

/** A member in words: rights and conditions as everywhere, the rest by name. */
function memberWords(key: string, value: Json | undefined, words: Words, nothing: string): string {
  if (value == null || value === '') return nothing;
  if (Array.isArray(value) && value.length === 0) return 'none';
  if (key === 'rights' && Array.isArray(value))
    return rightsLine(
      RIGHTS.filter((right) => value.includes(right)),
      null,
    );
  if (key === 'conditions' && typeof value === 'string')
    return (
      conditionLines(parseTerms(value).conditions, 'the recipient’s zone').join('; ') || 'none'
    );
  if (value === 'no-end') return 'no end';
  return valueWords(value, words);
}

/** The ledger keeps members by the alphabet; they are told in the order of their names above. */
function inOrder(keys: readonly string[]): string[] {
  const order = Object.keys(labels);
  const placeOf = (key: string): number =>
    order.includes(key) ? order.indexOf(key) : order.length;
  return [...keys].sort((a, b) => placeOf(a) - placeOf(b));
}

/** What differs between two objects, member by member. `nothing`: what it means that one of them says nothing. */
export function changes(
  before: Json | undefined,
  after: Json | undefined,
  words: Words,
  nothing = 'none',
): Fact[] {
  const [was, is] = [isObject(before) ? before : {}, isObject(after) ? after : {}];
  return inOrder([...new Set([...Object.keys(was), ...Object.keys(is)])]).flatMap((key) => {
    const [earlier, now] = [
      memberWords(key, was[key], words, nothing),
      memberWords(key, is[key], words, nothing),
    ];
    return earlier === now ? [] : [{ label: labels[key] ?? key, before: earlier, after: now }];
  });
}
