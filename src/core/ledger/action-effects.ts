import { ACTIONS, type Action } from '@/core/ledger/entry';

/** What an entry means for the access of those it names. */
type Effect = {
  /**
   * Whose pages may have to change: those of everybody who has the document, or of the person who did it
   * alone, with those whose prints are counted together with theirs.
   */
  readonly changes?: 'all' | 'own';
  /** It may have ended or narrowed access: a backup made before does not know of it. */
  readonly ends?: true;
  /** It is done to somebody, whom the entry names. */
  readonly toSomebody?: true;
};
const NOTHING: Effect = {};

const EFFECTS: Readonly<Record<Action, Effect>> = {
  'organisation.set-up': NOTHING,
  'staff.signed-in': NOTHING,
  'staff.signed-out': NOTHING,
  'staff.viewed': NOTHING,
  'staff.invited': NOTHING,
  'staff.changed': { ends: true },
  'staff.password-chosen': NOTHING,
  'staff.proven': NOTHING,
  'staff.factor-changed': NOTHING,
  'document.protected': NOTHING,
  'document.revised': NOTHING,
  'document.filed': { changes: 'all' },
  'document.revoked': { changes: 'all', ends: true },
  'document.reinstated': { changes: 'all', ends: true },
  'dispatch.sent': NOTHING,
  'dispatch.held': NOTHING,
  'dispatch.stopped': NOTHING,
  'dispatch.hastened': NOTHING,
  'dispatch.mailed-again': { toSomebody: true },
  'grant.given': { changes: 'own', toSomebody: true },
  'grant.changed': { changes: 'all', ends: true, toSomebody: true },
  'grant.revoked': { changes: 'all', ends: true, toSomebody: true },
  'grant.reinstated': { changes: 'all', ends: true, toSomebody: true },
  'mail.delivered': { toSomebody: true },
  'mail.failed': { toSomebody: true },
  'mail.returned': { toSomebody: true },
  'mail.stopped': NOTHING,
  'recipient.blocked': { changes: 'all', ends: true, toSomebody: true },
  'recipient.unblocked': { changes: 'all', ends: true, toSomebody: true },
  'recipient.changed': { toSomebody: true },
  'people.imported': NOTHING,
  'people.exported': NOTHING,
  'request.asked': { changes: 'own' },
  'request.answered': { changes: 'own', toSomebody: true },
  'request.asked-back': { changes: 'own', toSomebody: true },
  'request.replied': { changes: 'own' },
  'settings.changed': { ends: true },
  'ceiling.changed': { changes: 'all', ends: true },
  'link.visited': NOTHING,
  'link.replaced': { toSomebody: true },
  'link.switched-off': { toSomebody: true },
  'code.requested': NOTHING,
  'code.entered': NOTHING,
  'key.unwrapped': NOTHING,
  'key.given': NOTHING,
  'key.destroyed': { changes: 'all', ends: true },
  'key.rotated': NOTHING,
  'destruction.asked': NOTHING,
  'destruction.answered': NOTHING,
  'consent.asked': NOTHING,
  'consent.answered': NOTHING,
  'recovery.changed': NOTHING,
  'recovery.tried': NOTHING,
  'backup.made': NOTHING,
  'service.restored': NOTHING,
  'document.opened': NOTHING,
  'document.opened-offline': NOTHING,
  'document.checked': NOTHING,
  'page.shown': NOTHING,
  'text.sent': NOTHING,
  'text.copied': NOTHING,
  'comment.made': NOTHING,
  'comment.changed': NOTHING,
  'comments.shared': NOTHING,
  'comments.exported': NOTHING,
  'text.searched': NOTHING,
  'document.printed': { changes: 'own', ends: true },
  'print.noted': { changes: 'all' },
  'revision.sent': NOTHING,
  // Who sent it sees the answer in the open they have.
  'revision.answered': { changes: 'all' },
  'version.told': NOTHING,
  'aids.switched': { changes: 'all' },
  // Only those who hold what it names look again: the person's own devices.
  'device.ended': { changes: 'all', ends: true, toSomebody: true },
  'passkey.made': { changes: 'own' },
  'passkey.used': { changes: 'own' },
  // What a restore brings back of passkeys, it ends.
  'passkey.removed': { changes: 'all', toSomebody: true },
  'notice.accepted': NOTHING,
  'document.kept': NOTHING,
  'file.taken': { toSomebody: true },
  'file.inspected': NOTHING,
  'ledger.exported': NOTHING,
  'ledger.verified': NOTHING,
  'seal.broken': NOTHING,
  'demo.changed': NOTHING,
};

/** The actions that may change what those who read see: everybody's, or only that of the person who did it. */
export function actionsThatChange(whose: 'all' | 'own'): readonly Action[] {
  return ACTIONS.filter((action) => EFFECTS[action].changes === whose);
}

/** The actions that may have ended or narrowed access. */
export function actionsThatEnd(): readonly Action[] {
  return ACTIONS.filter((action) => EFFECTS[action].ends === true);
}

/** Whether an action is done to somebody, whom its entry names. */
export function isToSomebody(action: Action): boolean {
  return EFFECTS[action].toSomebody === true;
}
