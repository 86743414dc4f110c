import type { ProblemCode } from '@/contracts/problems';
import { DEFAULT_LANGUAGE } from '@/core/base/languages';
import { recipientProblemWords } from '@/words/recipient-problems';
import { staffProblemWords } from '@/words/staff-problems';

/** Who reads it. */
export type Audience = 'staff' | 'recipient';

/** A problem as a use case throws it: see `ServiceError`. */
export type ThrownProblem = { readonly problem: ProblemCode; readonly fields: object };

type Catalogue = Readonly<Partial<Record<ProblemCode, (fields: never) => string>>>;

const CATALOGUES: Record<Audience, Catalogue> = {
  staff: staffProblemWords,
  recipient: recipientProblemWords[DEFAULT_LANGUAGE],
};

/** Whether an error of ours is such a problem, by whichever bundle it was thrown. */
export function isProblem(error: object): error is ThrownProblem {
  return 'problem' in error && 'fields' in error;
}

/**
 * The sentence for a problem. Who is not signed in may be either, a recipient or a member of staff
 * at the sign-in page: what only the other catalogue knows is said in its words.
 */
export function problemText({ problem, fields }: ThrownProblem, audience: Audience): string {
  const other = audience === 'staff' ? 'recipient' : 'staff';
  const say = CATALOGUES[audience][problem] ?? CATALOGUES[other][problem];
  return say === undefined ? problem : say(fields as never);
}
