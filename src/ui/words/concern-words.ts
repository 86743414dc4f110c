import { listed } from '@/core/base/listed';
import type { Concern, ConcernCode } from '@/core/compose/concerns';
import type { Mend } from '@/core/compose/mend';
import { momentText } from '@/core/base/moment-text';

/** What a concern is about, as it is told. */
export type ConcernNames = {
  /** Somebody, or what stands for many, by the key of their row. */
  readonly nameOf: (key: string) => string;
  readonly titleOf: (document: string) => string;
  /** How many rows there are in all. */
  readonly rows: number;
  readonly zone: string;
};

const MOST_NAMED = 3;

function some(names: readonly string[]): string {
  return names.length <= MOST_NAMED
    ? listed(names)
    : `${names.slice(0, MOST_NAMED).join(', ')} and ${String(names.length - MOST_NAMED)} more`;
}

function who({ rows }: Concern, { nameOf, rows: all }: ConcernNames): string {
  return rows.length === all && all > MOST_NAMED ? 'Everybody' : some(rows.map(nameOf));
}

function titles({ documents }: Concern, { titleOf }: ConcernNames): string {
  return some(documents.map((id) => `“${titleOf(id)}”`));
}

const isOne = ({ rows, documents }: Concern): boolean => rows.length + documents.length === 1;

/** Each concern in a sentence or two: what is so, and why it matters. */
const WORDS: Record<ConcernCode, (concern: Concern, names: ConcernNames) => string> = {
  'no-documents': () => 'No document is chosen.',
  'no-recipients': () => 'There is no recipient, so nobody could open it.',
  'document-revoked': (concern, names) =>
    `${titles(concern, names)} ${isOne(concern) ? 'is' : 'are'} revoked, so nobody could open ${
      isOne(concern) ? 'it' : 'them'
    }.`,
  'document-for-nobody': (concern, names) =>
    `${titles(concern, names)} ${isOne(concern) ? 'is' : 'are'} given to nobody.`,
  'row-without-documents': (concern, names) => `${who(concern, names)} would be given no document.`,
  blocked: (concern, names) =>
    `${who(concern, names)} ${isOne(concern) ? 'is' : 'are'} blocked and could open nothing.`,
  'opens-nothing': (concern, names) =>
    `${who(concern, names)} could open nothing: ceilings leave nothing of these terms.`,
  'public-domain': (concern, names) =>
    `${who(concern, names)}: anybody can have an email address there. Name the people instead.`,
  'keep-needs': (concern, names) =>
    `${who(concern, names)}: Keep a copy is possible only with Copy text and unlimited Print, ` +
    'since a kept file can be copied and printed.',
  'needs-own-machine': (concern, names) =>
    `${titles(concern, names)} was encrypted on your machine and is read from its file alone, but ` +
    `${who(concern, names)} may not open it on their own machine.`,
  'local-by-hand': (concern, names) =>
    `${titles(concern, names)} was encrypted on your machine, so its file cannot be attached from ` +
    'here. Send a link, and hand the file over yourself.',
  'end-past': (concern, names) => `The end for ${who(concern, names)} is in the past.`,
  'end-before-start': (concern, names) =>
    `For ${who(concern, names)} access would end before it begins.`,
  'no-end': (concern, names) => `No end for ${who(concern, names)}.`,
  'looks-like': ({ rows, known }, { nameOf }) =>
    `${rows.map(nameOf).join('')} is new and one letter away from ${known ?? ''}. Is that right?`,
  'public-mail': (concern, names) =>
    `${who(concern, names)} ${isOne(concern) ? 'is' : 'are'} new and at a public mail provider, ` +
    'where anybody can have an address.',
  'passes-to-nobody': (concern, names) =>
    `Pass on has no effect for ${who(concern, names)}: it is not said to how many people.`,
  'not-yet': (concern, names) => `${who(concern, names)} cannot open it yet when the mail arrives.`,
  'only-kept': (concern, names) =>
    `${titles(concern, names)} cannot be shown as pages, and ${who(concern, names)} may not keep ` +
    'a copy: nothing of it could be used.',
  'message-marked-lower': () => 'The mail names a lower marking than a document it carries has.',
  'title-in-mail': (concern, names) =>
    `The mail names ${titles(concern, names)}, which the marking keeps out of mail.`,
};

export function concernText(concern: Concern, names: ConcernNames): string {
  return WORDS[concern.code](concern, names);
}

type MendWords = {
  readonly [Kind in Mend['kind']]: (
    mend: Extract<Mend, { readonly kind: Kind }>,
    names: ConcernNames,
  ) => string;
};

const MEND_WORDS: MendWords = {
  'remove-rows': ({ rows }, { nameOf }) =>
    rows.length === 1
      ? `Remove ${nameOf(rows[0] ?? '')}`
      : `Remove ${String(rows.length)} recipients`,
  'give-rows-all': () => 'Give every document',
  'remove-documents': ({ documents }) =>
    documents.length === 1 ? 'Remove this document' : 'Remove these documents',
  'give-documents': () => 'Give it to everybody',
  'correct-address': ({ address }) => `Use ${address}`,
  'set-end': ({ until }, { zone }) => `End on ${momentText(until, zone)}`,
  'give-needs': () => 'Also allow Copy text and unlimited Print',
  'give-keep': () => 'Let them keep a copy, with Copy text and unlimited Print',
  'give-own-machine': () => 'Let it be opened on their own machines, asking at every open',
  'take-unable': () => 'Take Keep a copy away',
  'drop-start': () => 'Open it from now on',
  'note-behind-link': () => 'Put the note behind the link',
  'pass-to-one': () => 'Let each pass it on to 1 person',
  'take-pass-on': () => 'Take Pass on away',
};

/** What stands on the button that mends a concern. */
export function mendText(mend: Mend, names: ConcernNames): string {
  const say = MEND_WORDS[mend.kind] as (mend: Mend, names: ConcernNames) => string;
  return say(mend, names);
}
