import type { ProblemCode } from '@/contracts/problems';
import { DEFAULT_LANGUAGE, type Language } from '@/core/base/languages';
import { recipientProblems } from '@/words/recipient-problems/recipient-problems';
import { staffProblemWords } from '@/words/staff-problems';

/** Who reads it, and in which language: staff read English. */
export type Reader =
  { readonly audience: 'staff' } | { readonly audience: 'recipient'; readonly language: Language };

export const STAFF: Reader = { audience: 'staff' };

/** A problem as a use case throws it: see `ServiceError`. */
export type ThrownProblem = { readonly problem: ProblemCode; readonly fields: object };

type Catalogue = Readonly<Partial<Record<ProblemCode, (fields: never) => string>>>;

/** Whether an error of ours is such a problem, by whichever bundle it was thrown. */
export function isProblem(error: object): error is ThrownProblem {
  return 'problem' in error && 'fields' in error;
}

/**
 * The sentence for a problem. Who is not signed in may be either, a recipient or a member of staff
 * at the sign-in page: what only the other catalogue knows is said in its words.
 */
export function problemText({ problem, fields }: ThrownProblem, reader: Reader): string {
  const staff: Catalogue = staffProblemWords;
  const language = reader.audience === 'staff' ? DEFAULT_LANGUAGE : reader.language;
  const recipients: Catalogue = recipientProblems[language].words;
  const [own, other] = reader.audience === 'staff' ? [staff, recipients] : [recipients, staff];
  const say = own[problem] ?? other[problem];
  return say === undefined ? problem : say(fields as never);
}
