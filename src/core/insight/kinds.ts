import { ACTIONS, type Action, type Outcome } from '@/core/ledger/entry';

/** What happened, sorted into the few tallies that somebody looks for. */
export const KINDS = [
  'opened',
  'read',
  'taken',
  'refused',
  'sent',
  'changed',
  'staff',
  'proof',
] as const;
export type Kind = (typeof KINDS)[number];

const kinds: Record<Action, Exclude<Kind, 'refused'>> = {
  'document.opened': 'opened',
  // Staff who look whether a document is right are not among those who opened it.
  'document.checked': 'staff',
  'page.shown': 'read',
  'text.sent': 'read',
  'text.copied': 'taken',
  'comment.made': 'changed',
  'comment.changed': 'changed',
  'comments.shared': 'changed',
  'comments.exported': 'staff',
  'text.searched': 'read',
  'document.printed': 'taken',
  'print.noted': 'changed',
  'aids.switched': 'changed',
  'document.kept': 'taken',
  'file.taken': 'sent',
  'file.inspected': 'staff',
  'dispatch.sent': 'sent',
  'dispatch.held': 'changed',
  'dispatch.stopped': 'changed',
  'dispatch.hastened': 'changed',
  'dispatch.mailed-again': 'sent',
  'mail.delivered': 'sent',
  'mail.failed': 'sent',
  'mail.returned': 'sent',
  'mail.stopped': 'changed',
  'document.protected': 'changed',
  'document.revised': 'changed',
  'document.filed': 'changed',
  'document.revoked': 'changed',
  'document.reinstated': 'changed',
  'key.destroyed': 'changed',
  'destruction.asked': 'changed',
  'destruction.answered': 'changed',
  'consent.asked': 'changed',
  'consent.answered': 'changed',
  'grant.given': 'changed',
  'grant.changed': 'changed',
  'grant.revoked': 'changed',
  'grant.reinstated': 'changed',
  'recipient.blocked': 'changed',
  'recipient.unblocked': 'changed',
  'recipient.changed': 'changed',
  'people.imported': 'changed',
  'people.exported': 'staff',
  'request.asked': 'sent',
  'request.answered': 'changed',
  'request.asked-back': 'sent',
  'request.replied': 'sent',
  'settings.changed': 'staff',
  'ceiling.changed': 'changed',
  'organisation.set-up': 'staff',
  'staff.signed-in': 'staff',
  'staff.signed-out': 'staff',
  'staff.viewed': 'staff',
  'staff.invited': 'staff',
  'staff.changed': 'staff',
  'staff.password-chosen': 'staff',
  'staff.proven': 'staff',
  'staff.factor-changed': 'staff',
  'key.rotated': 'staff',
  'recovery.changed': 'staff',
  'recovery.tried': 'staff',
  'backup.made': 'staff',
  'service.restored': 'staff',
  'ledger.exported': 'staff',
  'ledger.verified': 'staff',
  'seal.broken': 'proof',
  'demo.changed': 'staff',
  'link.visited': 'proof',
  'link.replaced': 'changed',
  'link.switched-off': 'changed',
  'code.requested': 'proof',
  'code.entered': 'proof',
  'key.unwrapped': 'proof',
};

/** A refusal is a refusal whatever was asked for. */
export function kindOf(action: Action, outcome: Outcome): Kind {
  return outcome === 'refused' ? 'refused' : kinds[action];
}

/** The actions of a kind; for refusals, all of them. */
export function actionsOf(kind: Kind): readonly Action[] {
  return kind === 'refused' ? ACTIONS : ACTIONS.filter((action) => kinds[action] === kind);
}
