import type { Action, Outcome } from '@/core/ledger/entry';
import type { Json } from '@/core/ledger/canonical';

/** What happened, in two or three words to be read behind a name. */
const done: Record<Action, string> = {
  'organisation.set-up': 'set up Embargo',
  'staff.signed-in': 'signed in',
  'staff.signed-out': 'signed out',
  'staff.viewed': 'looked at access',
  'staff.invited': 'invited a colleague',
  'staff.changed': 'changed a colleague',
  'staff.password-chosen': 'chose a password',
  'staff.proven': 'proved who they are',
  'staff.factor-changed': 'changed a second factor',
  'document.protected': 'protected',
  'document.revised': 'added a version',
  'document.filed': 'filed the document',
  'document.revoked': 'revoked the document',
  'document.reinstated': 'reinstated the document',
  'dispatch.sent': 'dispatched',
  'dispatch.held': 'held a dispatch back',
  'dispatch.stopped': 'stopped a dispatch before it left',
  'dispatch.hastened': 'let a held dispatch leave at once',
  'dispatch.mailed-again': 'mailed a link again',
  'grant.given': 'gave access',
  'grant.changed': 'changed access',
  'grant.revoked': 'revoked access',
  'grant.reinstated': 'reinstated access',
  'mail.delivered': 'delivered mail',
  'mail.failed': 'could not deliver mail',
  'mail.returned': 'was told that mail came back',
  'mail.stopped': 'stopped mail that waited',
  'code.requested': 'asked for a code',
  'code.entered': 'entered a code',
  'key.unwrapped': 'used a key',
  'key.given': 'was given the key',
  'key.destroyed': 'destroyed the key',
  'recipient.blocked': 'blocked',
  'recipient.unblocked': 'unblocked',
  'recipient.changed': 'changed a person',
  'request.asked': 'asked for more',
  'request.answered': 'answered a request',
  'request.asked-back': 'asked back about a request',
  'request.replied': 'replied about a request',
  'settings.changed': 'changed settings',
  'ceiling.changed': 'changed a ceiling',
  'document.opened': 'opened',
  'document.checked': 'opened as a check',
  'document.opened-offline': 'read without a connection',
  'page.shown': 'was shown a page',
  'text.sent': 'was sent the text of a page',
  'text.copied': 'copied text',
  'comment.made': 'commented',
  'comment.changed': 'changed a comment',
  'comments.shared': 'chose who sees comments',
  'comments.exported': 'exported comments',
  'text.searched': 'searched in a document',
  'document.printed': 'made a print',
  'revision.sent': 'sent a changed file back',
  'revision.answered': 'answered about a changed file',
  'version.told': 'told of a new version',
  'aids.switched': 'switched reading aids',
  'device.ended': 'ended a device',
  'passkey.made': 'made a passkey',
  'passkey.used': 'used a passkey',
  'passkey.removed': 'removed a passkey',
  'notice.accepted': 'accepted the notice',
  'print.noted': 'noted what became of a copy on paper',
  'document.kept': 'kept a copy',
  'people.imported': 'imported people',
  'people.exported': 'exported the list of people',
  'file.taken': 'downloaded a protected file',
  'file.inspected': 'inspected a protected file',
  'key.rotated': 'rotated the master key',
  'destruction.asked': 'asked to destroy keys',
  'destruction.answered': 'answered about destroying keys',
  'link.visited': 'came by an open link',
  'link.replaced': 'replaced the link of',
  'link.switched-off': 'switched off the link of',
  'consent.asked': 'asked a second person',
  'consent.answered': 'answered as the second person',
  'recovery.changed': 'changed the recovery key',
  'recovery.tried': 'tried the recovery key',
  'backup.made': 'made a backup',
  'service.restored': 'restored a backup',
  'ledger.exported': 'exported the ledger',
  'ledger.verified': 'verified the ledger',
  'seal.broken': 'found rows changed by another program',
  'demo.changed': 'changed the demo',
};

/** What was tried in vain. */
const tried: Partial<Record<Action, string>> = {
  'document.opened': 'tried to open',
  'document.checked': 'tried to open as a check',
  'page.shown': 'tried to read on',
  'text.sent': 'tried to take text',
  'text.copied': 'tried to copy text',
  'comment.made': 'tried to comment',
  'text.searched': 'tried to search',
  'document.printed': 'tried to print',
  'document.kept': 'tried to keep a copy',
  'revision.sent': 'tried to send a changed file back',
  'code.entered': 'entered a wrong code',
  'staff.signed-in': 'tried to sign in',
  'staff.proven': 'tried to prove who they are',
  'staff.password-chosen': 'tried to choose a password',
  'link.visited': 'tried an open link',
  'recovery.tried': 'tried a recovery key that does not work',
  'file.inspected': 'inspected an unknown file',
};

type Done = {
  readonly action: Action;
  readonly outcome: Outcome;
  readonly actor: { readonly kind: string; readonly id: string | null };
  readonly recipient: string | null;
  readonly details: Readonly<Record<string, Json>>;
};

/** What a change is called by what its details name; the first that is there counts. */
const byDetail: Partial<Record<Action, readonly (readonly [detail: string, words: string])[]>> = {
  'staff.changed': [['notices', 'changed their notices']],
  'settings.changed': [
    ['group', 'changed a group'],
    ['rule', 'changed a rule'],
    ['terms', 'changed saved terms'],
  ],
};

/** What somebody did or tried, to be read behind their name. */
export function didWords({ action, outcome, actor, recipient, details }: Done): string {
  if (outcome === 'refused' || outcome === 'failed') return tried[action] ?? done[action];
  // Before it was told apart, sending the text of a page was written down as a copy.
  if (action === 'text.copied' && details['characters'] === undefined) return done['text.sent'];
  // A grant that somebody has by a group, a domain or an open link begins as they come in by it.
  if (action === 'grant.given' && actor.kind === 'recipient')
    return actor.id === recipient ? 'used shared access' : 'passed on access';
  const named = byDetail[action]?.find(([detail]) => Object.hasOwn(details, detail));
  return named?.[1] ?? done[action];
}
