import type { RuleRow } from '@/contracts/rules';
import type { Leave, Rule, Way } from '@/core/policy/rules';

/** Ways of handing something out, with what each comes to. */
export const wayWords: Record<Way, { readonly name: string; readonly hint: string }> = {
  link: { name: 'A link', hint: 'pages shown here, after proof of the email address' },
  file: { name: 'A protected file', hint: 'the document travels encrypted' },
  unprotected: {
    name: 'Unprotected',
    hint: 'the document in the clear; it cannot be revoked once it is sent',
  },
  domain: {
    name: 'Everyone at a domain',
    hint: 'anyone who proves an email address there; how many is unknown',
  },
  'open-link': {
    name: 'An open link',
    hint: 'anyone with the link can read; who that is stays unknown',
  },
  'lower-marking': {
    name: 'Lowering a marking',
    hint: 'to a marking further up the list, or to none',
  },
};

export const leaveWords: Record<Leave, string> = {
  allowed: 'senders may',
  agreed: 'needs a second person',
  forbidden: 'nobody may',
};

/** Why something is not offered, or what it waits for; empty where anybody may. */
export function ruleLine({
  leave,
  reason,
  setByName,
}: Pick<RuleRow, 'leave' | 'reason' | 'setByName'>): string {
  if (leave === 'allowed') return '';
  const by =
    setByName === ''
      ? 'nobody has allowed it yet'
      : `${setByName} decided so${reason === '' ? '' : `: ${reason}`}`;
  return leave === 'forbidden'
    ? `not allowed here: ${by}. An administrator can change it under Terms.`
    : `needs a second person: ${by}.`;
}

export function ruleOf<T extends Rule>(rules: readonly T[], way: Way): T | undefined {
  return rules.find((rule) => rule.way === way);
}

/** Where marking lower waits. */
export const waitsWords =
  'The lower marking needs a second person. Until they approve, it stays as it is.';
