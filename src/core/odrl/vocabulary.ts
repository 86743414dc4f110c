import type { Right } from '@/core/policy/rights';

/** The context every ODRL 2.2 document names (W3C Recommendation "ODRL Vocabulary & Expression 2.2", section 2.2). */
export const ODRL_CONTEXT = 'http://www.w3.org/ns/odrl.jsonld';
/** Our profile of it (docs/odrl-profile.md) and the prefix of what it adds. */
export const PROFILE = 'urn:embargo:odrl-profile:1';
export const PREFIX = 'embargo';
export const NAMESPACE = `${PROFILE}#`;

/** Each right as an action of the standard. */
export const actions: Readonly<Record<Right, string>> = {
  read: 'display',
  comment: 'annotate',
  copy: 'extract',
  print: 'print',
  revise: 'derive',
  keep: 'reproduce',
  'pass-on': 'grantUse',
};
const rights = new Map(Object.entries(actions).map(([right, action]) => [action, right as Right]));

/** The right an action stands for; `undefined` where it is none of ours. */
export function rightOf(action: string): Right | undefined {
  return rights.get(action.replace(/^odrl:|^http:\/\/www\.w3\.org\/ns\/odrl\/2\//, ''));
}
