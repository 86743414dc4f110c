import type { RefusalReason } from '@/core/policy/decide';

const names: Record<RefusalReason, string> = {
  'identity-not-proven': 'email address not proven',
  'not-addressed': 'not a recipient',
  'recipient-blocked': 'person blocked',
  'document-revoked': 'document revoked',
  'not-yet': 'not open yet',
  expired: 'expired',
  revoked: 'revoked',
  'key-destroyed': 'key destroyed',
  'prove-again': 'has to prove again',
  'passkey-needed': 'passkey not used',
  'device-not-accepted': 'device not remembered',
  'too-many-devices': 'too many devices',
  'network-not-allowed': 'IP address not allowed',
  'place-not-allowed': 'place not allowed',
  'hours-not-allowed': 'outside the allowed hours',
  'opens-used-up': 'opens used up',
  'condition-unknown': 'unknown condition',
  'read-not-allowed': 'Read not allowed',
};

/** A reason in two or three words, for lists; codes of other areas as they are, without dashes. */
export function refusalName(reason: string): string {
  return Object.hasOwn(names, reason)
    ? names[reason as RefusalReason]
    : reason.replaceAll(/[-_]/g, ' ').toLowerCase();
}
