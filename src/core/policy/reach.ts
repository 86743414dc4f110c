import type { Moment } from '@/core/base/time';
import type { GrantId } from '@/core/base/ids';
import type { CompiledDocument } from '@/core/policy/compile';
import {
  decide,
  grantsReaching,
  notLive,
  type Asking,
  type RefusalReason,
} from '@/core/policy/decide';

/** Whether a document and a person reach each other: by which grants, or why by none. */
export type Reach =
  | {
      readonly opens: true;
      readonly routes: readonly GrantId[];
      /** When all of it ends; null: no end is set. */ readonly until: Moment | null;
    }
  | { readonly opens: false; readonly reason: RefusalReason };

/** Whether somebody reaches a document, by every route they have. */
export function reach(document: CompiledDocument, asking: Asking): Reach {
  const decision = decide(document, asking);
  if (decision.outcome === 'refused') return { opens: false, reason: decision.reason };
  return {
    opens: true,
    until: decision.until,
    routes: grantsReaching(document, asking)
      .filter((grant) => notLive(grant, asking.at) === null)
      .map(({ facts }) => facts.id),
  };
}
