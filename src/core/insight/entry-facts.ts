import { refusalName } from '@/core/policy/refusal-names';
import { doubtNames } from '@/core/compose/doubt-names';
import { counted } from '@/core/base/counted';
import { changes, isObject, number, text, valueWords, type Words } from '@/core/insight/fact-words';
import { paperFacts } from '@/core/insight/paper-facts';
import { termsChanges } from '@/core/insight/terms-changes';
import type { Fact } from '@/core/insight/fact';
import { statusWords } from '@/core/mail/status-words';
import { isToSomebody } from '@/core/ledger/action-effects';
import type { Json } from '@/core/ledger/canonical';
import type { Action, Entry } from '@/core/ledger/entry';
import { RIGHTS } from '@/core/policy/rights';

/** The label of the reason why something was refused. */
export const REASON_LABEL = 'Why not';

/** What of an entry its facts are made of. */
export type Told = Pick<
  Entry,
  | 'action'
  | 'outcome'
  | 'reason'
  | 'actor'
  | 'recipient'
  | 'dispatch'
  | 'version'
  | 'device'
  | 'details'
> & {
  /** What somebody wrote, where it is still kept. */
  readonly text: string;
  readonly address: string;
};

type Details = Entry['details'];
type Teller = (details: Details, words: Words, told: Told) => readonly Fact[];

const fact = (label: string, value: string): Fact[] =>
  value === '' ? [] : [{ label, before: null, after: value }];
const named = (value: Json | undefined, words: Words): string =>
  value == null ? '' : valueWords(value, words);
/** What a sender was asked about and left as it was; a name of a later version stays as it is. */
const wavedText = (waved: Json | undefined): string =>
  Array.isArray(waved)
    ? (waved as readonly Json[])
        .map((code) => text(code))
        .map((code) => Object.entries(doubtNames).find(([name]) => name === code)?.[1] ?? code)
        .join(', ')
    : '';
const answered = (details: Details): Fact[] =>
  fact('Answer', details['agreed'] === true ? 'agreed' : 'declined');
const counts = (details: Details, kinds: Readonly<Record<string, string>>): Fact[] =>
  Object.entries(kinds).flatMap(([key, label]) =>
    typeof details[key] === 'number' ? fact(label, details[key].toLocaleString('en-GB')) : [],
  );

/** Why a grant came or went along with something else. */
const becauseWords: Readonly<Record<string, string>> = {
  'left-group': 'they left the group',
  'group-removed': 'the group was removed',
  'joined-group': 'they joined the group',
  left: 'they have left',
};
const scopeWords: Readonly<Record<string, string>> = {
  person: 'everything of this person',
  organisation: 'everything of their organisation',
  dispatch: 'the whole dispatch',
  group: 'everything of the group',
  'person-on-document': 'everything of this person on the document',
};

function aboutRevoke({ terms, because, scope }: Details, words: Words): Fact[] {
  return [
    ...(typeof terms === 'string' ? termsChanges(null, terms, words) : []),
    ...fact('With', scopeWords[text(scope)] ?? ''),
    ...fact('Because', becauseWords[text(because)] ?? ''),
  ];
}

function aboutRule(details: Details): Fact[] {
  const { before, after } = details;
  return [
    {
      label: `Rule: ${text(details['rule']).replaceAll('-', ' ')}`,
      before: before === after ? null : text(before),
      after: text(after),
    },
    ...fact('Reason', text(details['reason'])),
  ];
}

function aboutSavedText({ savedText, made, removed }: Details): Fact[] {
  if (removed !== undefined) return fact('Saved text removed', text(savedText));
  return fact(made === true ? 'Saved text made' : 'Saved text changed', text(savedText));
}

function aboutTwoPeople({ asked: isAsked, twoPeople }: Details): Fact[] {
  if (isAsked === false) return fact('Asked', 'that one person is enough');
  const words = twoPeople === true ? 'needed to destroy keys' : 'not needed to destroy keys';
  return fact('Two people', words);
}

/** What of a settings change is told by the first of its details that is there. */
const settingsTellers: readonly (readonly [detail: string, teller: Teller])[] = [
  ['rule', aboutRule],
  ['savedText', aboutSavedText],
  [
    'defaults',
    (details, words) => [
      ...fact('Defaults, for', levelText(details['defaults'], details['subject'], words)),
      ...changes(details['before'], details['after'], words, 'not set'),
    ],
  ],
  ['consent', (details) => [...fact('About', 'needing only one person'), ...answered(details)]],
  ['twoPeople', aboutTwoPeople],
  [
    'added',
    (details, words) => [
      ...fact('Group', named(keptOf(details).id, words)),
      ...fact('In', named(details['added'], words)),
      ...fact('Out', named(details['removed'], words)),
    ],
  ],
  [
    'removed',
    (details, words) => {
      const { label, id } = keptOf(details);
      const { removed } = details;
      return fact(`${label} removed`, removed === true ? named(id, words) : text(removed));
    },
  ],
  ['made', (details) => fact(`${keptOf(details).label} made`, text(details['made']))],
];

function aboutSettings(details: Details, words: Words, told: Told): readonly Fact[] {
  const found = settingsTellers.find(([detail]) => Object.hasOwn(details, detail));
  return found === undefined ? aboutKept(details, words) : found[1](details, words, told);
}

/** What is kept under a name and was changed: a folder, a marking, terms, a group. */
function keptOf(details: Details): { readonly label: string; readonly id: Json | undefined } {
  const kinds = { Folder: 'folder', Marking: 'marking', 'Saved terms': 'terms', Group: 'group' };
  const found = Object.entries(kinds).find(([, detail]) => details[detail] !== undefined);
  return found === undefined ? { label: '', id: '' } : { label: found[0], id: details[found[1]] };
}

/** One value of something kept, before and after, where it became another. */
function became(details: Details, name: string, none: Json, words: Words): readonly Fact[] {
  const [before, after] = [details[`${name}Before`], details[name]];
  if (before === after) return [];
  return changes({ [name]: before ?? none }, { [name]: after ?? none }, words);
}

function aboutKept(details: Details, words: Words): Fact[] {
  const { before, after } = details;
  const isWhole = isObject(before) || isObject(after);
  const changed = number(details['changed']);
  return [
    ...namedAs(details, isWhole),
    ...(isWhole
      ? changes(before ?? { name: details['name'] ?? '' }, after ?? null, words, 'not set')
      : []),
    ...became(details, 'parent', null, words),
    ...became(details, 'markingId', null, words),
    ...became(details, 'meaning', '', words),
    ...became(details, 'hidesTitles', false, words),
    ...became(details, 'mailWords', '', words),
    ...(details['up'] === true ? fact('Moved', 'up') : []),
    ...(changed > 0 ? fact('Earlier dispatches changed', counted(changed, 'grant')) : []),
    ...(details['imported'] === true ? fact('From', 'an imported file') : []),
  ];
}

/** What it is called, and was before where it was renamed. */
function namedAs(details: Details, isWhole: boolean): Fact[] {
  const { before, after } = details;
  const { label } = keptOf(details);
  if (label === '') return [];
  const isNew = before == null;
  if (!isWhole && !isNew && before !== after)
    return [{ label, before: text(before), after: text(after) }];
  return fact(isNew ? `${label} made` : label, text(details['name']) || text(after));
}

function levelText(level: Json | undefined, subject: Json | undefined, words: Words): string {
  return level === 'organisation'
    ? 'the organisation'
    : `the ${text(level)} ${named(subject, words)}`;
}

function asked(details: Details, words: Words): Fact[] {
  const right = RIGHTS.find((each) => each === details['right']);
  const until = details['until'];
  return [
    ...fact('Asked for', right === undefined ? '' : `the right to ${right.replaceAll('-', ' ')}`),
    ...fact('Until', typeof until === 'number' ? words.moment(until) : ''),
    ...fact('Was refused', refusalName(text(details['met']))),
  ];
}

/** What each action tells of itself; null: nothing that the columns beside it do not say. */
const tellers: Readonly<Record<Action, Teller | null>> = {
  'staff.viewed': ({ accessAt }, { moment }) =>
    fact('As it stood', typeof accessAt === 'number' ? moment(accessAt) : ''),
  'staff.invited': ({ staff, role }, words) => [
    ...fact('Colleague', named(staff, words)),
    ...fact('Role', text(role)),
  ],
  'staff.changed': (details, words) => [
    ...fact('Colleague', named(details['staff'], words)),
    ...(isObject(details['before'])
      ? changes(details['before'], details['limits'] ?? details['after'] ?? null, words, 'no limit')
      : [{ label: 'Role', before: text(details['before']), after: text(details['after']) }]),
  ],
  'staff.factor-changed': ({ staff, factor }, words) => [
    ...fact('Colleague', named(staff, words)),
    ...fact('Second factor', factor === true ? 'on' : 'off'),
  ],
  'document.protected': ({ pages }) => fact('Pages', String(number(pages))),
  'document.revised': ({ number: version, pages }) => [
    ...fact('Version', String(number(version))),
    ...fact('Pages', String(number(pages))),
  ],
  'document.filed': ({ before, after }, words) => changes(before, after, words),
  'dispatch.held': ({ documents, recipients, leavesAt }, words) => [
    ...fact(
      'Held back',
      `${counted(number(documents), 'document')} to ${counted(number(recipients), 'recipient')}`,
    ),
    ...fact('Leaves', words.moment(number(leavesAt))),
  ],
  'dispatch.stopped': ({ problem }) => fact('Because', text(problem).replaceAll('-', ' ')),
  'dispatch.sent': ({ documents, recipients, delivery, watermark, waved }) => [
    ...fact(
      'Sent',
      `${counted(number(documents), 'document')} to ${counted(number(recipients), 'recipient')}`,
    ),
    ...fact('By', text(delivery).replaceAll('-', ' ')),
    ...fact('Watermark', text(watermark)),
    ...fact('Left as it was', wavedText(waved)),
  ],
  'grant.given': ({ terms, beneath }, words) => [
    ...termsChanges(null, text(terms), words),
    ...fact('From the grant of', beneath === undefined ? '' : named(beneath, words)),
  ],
  'grant.changed': ({ before, terms, kept }, words) => [
    ...termsChanges(text(before), text(terms), words),
    ...fact('Following the saved terms', named(kept, words)),
  ],
  'grant.revoked': aboutRevoke,
  'grant.reinstated': aboutRevoke,
  'recipient.blocked': ({ because, successor }, words) => [
    ...fact('Because', becauseWords[text(because)] ?? ''),
    ...fact('Successor', named(successor, words)),
  ],
  'recipient.changed': (details, words) =>
    'sameAs' in details
      ? fact(
          'Same person as',
          details['sameAs'] === null ? 'a person of its own' : named(details['sameAs'], words),
        )
      : changes(details['before'], details['after'], words),
  'people.imported': (details) =>
    counts(details, {
      added: 'New',
      changed: 'Changed',
      same: 'As before',
      problems: 'Not understood',
    }),
  'people.exported': (details) => counts(details, { people: 'People' }),
  'request.asked': asked,
  'request.answered': ({ state }) => fact('Answer', text(state).replaceAll('-', ' ')),
  'request.asked-back': null,
  'request.replied': null,
  'settings.changed': aboutSettings,
  'ceiling.changed': ({ level, subject, before, limits }, words) => [
    ...fact('For', levelText(level, subject, words)),
    ...changes(before, limits ?? null, words, 'no limit'),
  ],
  'code.entered': ({ kept }) =>
    fact('Device', kept === undefined ? '' : kept === true ? 'remembered' : 'for one visit'),
  'key.unwrapped': (details) => fact('For', text(details['for']).replaceAll('-', ' ')),
  'key.given': ({ offlineUntil }, { moment }) =>
    fact(
      'Readable without asking until',
      typeof offlineUntil === 'number' ? moment(offlineUntil) : 'never: every open asks',
    ),
  'key.rotated': (details) => counts(details, { generation: 'Generation' }),
  'destruction.asked': ({ documents }, words) => fact('Documents', named(documents, words)),
  'destruction.answered': answered,
  'consent.asked': ({ kind, documents, recipients }, words) => [
    ...fact(
      'Approval of',
      kind === 'send'
        ? `dispatch to ${counted(number(recipients), 'recipient')}`
        : 'a lower marking',
    ),
    ...fact('Documents', named(documents, words)),
  ],
  'consent.answered': answered,
  'service.restored': ({ madeAt, entries }, { moment }) => [
    ...fact('Backup of', typeof madeAt === 'number' ? moment(madeAt) : ''),
    ...fact('Entries', number(entries).toLocaleString('en-GB')),
  ],
  'document.opened': ({ via }, words) => fact('By the link of', named(via, words)),
  'document.opened-offline': ({ pages, missing }) => [
    ...fact('Pages', String(number(pages))),
    ...fact('Never handed in before it', missing === undefined ? '' : String(number(missing))),
  ],
  'page.shown': ({ page, told }) => [
    ...fact('Page', page === undefined ? '' : String(number(page))),
    ...fact('Known from', told === true ? 'the reader on their own machine' : ''),
  ],
  'text.sent': ({ page, aids }) => [
    ...fact('Page', page === undefined ? '' : String(number(page))),
    ...fact('For', aids === true ? 'a screen reader' : ''),
  ],
  'text.searched': ({ from, to, found }) => [
    ...fact('Pages', from === undefined ? '' : `${String(number(from))} to ${String(number(to))}`),
    ...fact('Found', found === undefined ? '' : counted(number(found), 'place')),
  ],
  'comment.made': ({ page, offline }) => [
    ...fact('Page', page === undefined ? '' : String(number(page))),
    ...fact('Made', offline === true ? 'without a connection' : ''),
  ],
  'comment.changed': ({ change }) => fact('Change', text(change)),
  'comments.shared': ({ seenBy }) => fact('Seen by', text(seenBy)),
  'comments.exported': ({ comments, as }) => [
    ...fact('Comments', String(number(comments))),
    ...fact('As', text(as)),
  ],
  'text.copied': ({ page, characters }) => [
    ...fact('Page', page === undefined ? '' : String(number(page))),
    ...fact('Copied', characters === undefined ? '' : counted(number(characters), 'character')),
  ],
  'document.printed': ({ copy, from, to, here }) =>
    copy === undefined
      ? []
      : [
          ...fact('Copy', String(number(copy))),
          ...fact('Pages', `${String(number(from))} to ${String(number(to))}`),
          ...fact('Made', here === true ? 'on their own machine' : ''),
        ],
  'print.noted': paperFacts,
  'revision.sent': ({ number: version, pages }) => [
    ...fact('Version', version === undefined ? '' : String(number(version))),
    ...fact('Pages', pages === undefined ? '' : String(number(pages))),
  ],
  'revision.answered': ({ number: version, accepted }) => [
    ...fact('Version', String(number(version))),
    ...fact('Answer', accepted === true ? 'accepted' : 'declined'),
  ],
  'version.told': ({ number: version, people }) => [
    ...fact('Version', String(number(version))),
    ...fact('Mailed to', counted(number(people), 'person', 'people')),
  ],
  'device.ended': null,
  'passkey.made': ({ passkey }) => fact('Passkey', text(passkey)),
  'passkey.used': ({ passkey, inPlaceOfCode }) => [
    ...fact('Passkey', passkey === undefined ? '' : text(passkey)),
    ...fact('Used', inPlaceOfCode === true ? 'in place of a code' : 'besides the email address'),
  ],
  'passkey.removed': ({ count }) => fact('Passkeys', String(number(count))),
  'notice.accepted': ({ version, language, text: digest }) => [
    ...fact('Wording', String(number(version))),
    ...fact('Language', text(language)),
    ...fact('SHA-256 of the text', text(digest)),
  ],
  'aids.switched': ({ owner, on }, words) => [
    ...fact('Reading aids', on === true ? 'on' : 'off'),
    ...fact('On documents of', named(owner, words)),
  ],
  'document.kept': ({ marked, here }) => [
    ...fact(
      'Copy',
      marked === undefined ? '' : marked === true ? 'watermarked' : 'not watermarked',
    ),
    ...fact('Made', here === true ? 'on their own machine' : ''),
  ],
  'ledger.exported': (details) => [
    ...fact('Statement', text(details['statement'])),
    ...counts(details, { rows: 'Rows', opens: 'Opens', entries: 'Entries' }),
    ...fact('Filtered by', text(details['filter'])),
  ],
  'ledger.verified': (details) => counts(details, { handedIn: 'Outside checkpoints' }),
  'seal.broken': (details) => counts(details, { count: 'Rows' }),
  'demo.changed': ({ forward }) =>
    fact('Clock moved by', `${String(Math.round(number(forward) / 3_600_000))} hours`),
  'organisation.set-up': null,
  'staff.signed-in': null,
  'staff.signed-out': null,
  'staff.password-chosen': null,
  'staff.proven': null,
  'document.revoked': null,
  'document.reinstated': null,
  'dispatch.mailed-again': null,
  'dispatch.hastened': null,
  'mail.delivered': null,
  'mail.failed': null,
  'mail.stopped': (details) => counts(details, { messages: 'Messages' }),
  'mail.returned': ({ status }) => fact('Why', statusWords(text(status))),
  'recipient.unblocked': null,
  'link.visited': null,
  'link.replaced': null,
  'link.switched-off': null,
  'code.requested': null,
  'key.destroyed': null,
  'recovery.changed': null,
  'recovery.tried': null,
  'backup.made': null,
  'document.checked': null,
  'file.taken': null,
  'file.inspected': null,
};

/** To whom something was done; empty: to nobody, or to the person who did it. */
export function toWhom({ action, actor, recipient, address }: Told, { nameOf }: Words): string {
  if (
    action === 'mail.delivered' ||
    action === 'mail.failed' ||
    action === 'mail.returned' ||
    action === 'staff.invited'
  )
    return address;
  return recipient !== null && recipient !== actor.id && isToSomebody(action)
    ? nameOf(recipient)
    : '';
}

/** What an entry says that nothing beside it does: what it was and is, why not, and what somebody wrote. */
export function ownFacts(told: Told, words: Words): Fact[] {
  const { action, details, reason, text: said } = told;
  const facts = [...(tellers[action]?.(details, words, told) ?? [])];
  if (details['linkOf'] !== undefined)
    facts.push(...fact('By the link of', named(details['linkOf'], words)));
  if (reason !== null)
    facts.push({
      label: REASON_LABEL,
      before: null,
      after: refusalName(reason),
    });
  if (details['restored'] === true)
    facts.push({
      label: 'Restored',
      before: null,
      after: 'with a backup, because it had ended since',
    });
  if (said.trim() !== '')
    facts.push({ label: 'Said', before: null, after: said.trim().replaceAll(/\s*\n\s*/g, ' / ') });
  return facts;
}

/**
 * What an entry says beyond who, what, when and where: to whom, what it was and is, by which
 * version and device, and why.
 */
export function factsOf(told: Told, words: Words): Fact[] {
  const { action, dispatch, version, device } = told;
  const own = ownFacts(told, words);
  const said = own.filter(({ label }) => label === 'Said');
  return [
    ...fact(action.startsWith('recipient.') ? 'Person' : 'To', toWhom(told, words)),
    ...own.filter(({ label }) => label !== 'Said'),
    ...fact(
      'Dispatch',
      dispatch === null || action === 'dispatch.sent' ? '' : words.nameOf(dispatch),
    ),
    ...fact(
      'Version',
      version === null || action === 'document.revised' ? '' : words.nameOf(version),
    ),
    ...fact('Device', device === null || action === 'code.entered' ? '' : words.nameOf(device)),
    ...said,
  ];
}

/** Labels that a line does without. */
const SELF_TOLD: ReadonlySet<string> = new Set([REASON_LABEL, 'Rights']);

/** The same in one line. Leaves out what a list has in columns of its own. */
export function factLine(facts: readonly Fact[], without: readonly string[] = []): string {
  return facts
    .filter(({ label }) => !without.includes(label))
    .map(
      ({ label, before, after }) =>
        (SELF_TOLD.has(label) && before === null ? '' : `${label.toLowerCase()} `) +
        (before === null ? after : `${before} → ${after}`),
    )
    .join('; ');
}
