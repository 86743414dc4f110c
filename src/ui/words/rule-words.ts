import type { RuleRow } from '@/contracts/rules';
import type { Leave, Rule, Way } from '@/core/policy/rules';

/** Ways of handing something out, with what each comes to. */
export const wayWords: Record<Way, { readonly name: string; readonly hint: string }> = {
  link: { name: 'A link', hint: 'pages shown here, behind a proof of the address' },
  file: { name: 'A protected file', hint: 'the document travels encrypted' },
  unprotected: {
    name: 'Unprotected',
    hint: 'the document in the clear; nothing reaches it once it has left',
  },
  domain: {
    name: 'Everyone at a domain',
    hint: 'whoever proves an address there; how many is unknown',
  },
  'open-link': {
    name: 'A link that asks for no proof',
    hint: 'whoever holds it reads; who that is stays unknown',
  },
  'lower-marking': { name: 'Marking lower', hint: 'to a marking further up the list, or to none' },
};

export const leaveWords: Record<Leave, string> = {
  allowed: 'whoever sends may',
  agreed: 'a second person agrees first',
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
    : `a second person has to agree first: ${by}.`;
}

export function ruleOf<T extends Rule>(rules: readonly T[], way: Way): T | undefined {
  return rules.find((rule) => rule.way === way);
}

/** Where marking lower waits. */
export const waitsWords =
  'A second person was asked to agree to the lower marking. Until then it stays as it is.';
