import type { Leave, Way } from '@/core/policy/rules';
import { putRule, viewRules } from '@/server/services/policy/manage-rules';
import type { Product } from './product';

/** Decides about a way of handing out, as an administrator does who has just looked at it. */
export async function setWay({ deps, ida }: Product, way: Way, leave: Leave, reason = '') {
  const seen = (await viewRules(deps)).find((each) => each.way === way)?.setAt ?? null;
  return putRule(deps, ida, { way, leave, reason, seen });
}
