import type { Kind } from '@/core/insight/kinds';
import type { Action } from '@/core/ledger/entry';

/** What happened, in two or three words. */
export const actionWords: Record<Action, string> = {
  'organisation.set-up': 'set up Embargo', 'staff.signed-in': 'signed in', 'staff.signed-out': 'signed out', 'staff.viewed': 'looked at access',
  'staff.invited': 'invited a colleague', 'staff.changed': 'changed a colleague', 'staff.password-chosen': 'chose a password', 'staff.proven': 'proved who they are', 'staff.factor-changed': 'changed a second factor',
  'document.protected': 'protected', 'document.revised': 'added a version', 'document.filed': 'filed the document', 'document.revoked': 'revoked the document', 'document.reinstated': 'reinstated the document',
  'dispatch.sent': 'dispatched', 'dispatch.mailed-again': 'mailed a link again', 'grant.given': 'gave access', 'grant.changed': 'changed access', 'grant.revoked': 'revoked access', 'grant.reinstated': 'reinstated access',
  'mail.delivered': 'mail delivered', 'mail.failed': 'mail not delivered',
  'code.requested': 'asked for a code', 'code.entered': 'entered a code', 'key.unwrapped': 'key taken', 'key.destroyed': 'destroyed the key',
  'recipient.blocked': 'blocked', 'recipient.unblocked': 'unblocked', 'recipient.changed': 'changed a person',
  'request.asked': 'asked for more', 'request.answered': 'answered a request', 'settings.changed': 'changed settings', 'ceiling.changed': 'changed a ceiling',
  'document.opened': 'opened', 'document.checked': 'opened as a check', 'page.shown': 'read', 'text.copied': 'took its text', 'document.printed': 'made a print', 'document.kept': 'kept a copy',
  'people.brought-in': 'brought people in', 'people.taken-out': 'took the list of people out',
  'file.taken': 'took a protected file', 'file.inspected': 'inspected a protected file', 'key.rotated': 'rotated the master key',
  'destruction.asked': 'asked to destroy keys', 'destruction.answered': 'answered about destroying keys', 'link.visited': 'came by an open link', 'consent.asked': 'asked a second person', 'consent.answered': 'answered as the second person', 'recovery.changed': 'changed the recovery key',
  'recovery.tried': 'tried the recovery key', 'backup.made': 'made a backup', 'service.restored': 'restored a backup',
  'ledger.exported': 'exported the ledger', 'ledger.verified': 'verified the ledger', 'seal.broken': 'found rows changed by another program', 'demo.changed': 'changed the demo',
};

/** The heaps of the ledger. */
export const kindWords: Record<Kind, string> = { opened: 'opened', read: 'pages read', taken: 'printed, copied, kept', refused: 'refused', sent: 'sent', changed: 'changed', staff: 'staff', proof: 'codes and keys' };
