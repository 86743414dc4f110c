import 'server-only';
import { AppError } from '@/core/base/errors';
import {
  PROBLEMS,
  type NoFields,
  type ProblemCode,
  type ProblemFields,
  type ProblemKind,
} from '@/contracts/problems';
import { SECOND } from '@/core/base/time';

/** Too many tries; `wait` in ms until the next may be made. */
export function tooMany(wait: number): ServiceError {
  return new ServiceError('too-many-tries', { retryAfter: Math.ceil(wait / SECOND) });
}

/** No fields are left out, any others have to be given. */
type Given<C extends ProblemCode> =
  ProblemFields<C> extends NoFields ? [] : [fields: ProblemFields<C>];

/**
 * Why a use case could not be carried out: a problem and what is to be known of it. Its `code` is
 * the kind of the problem; the words for it are found at the edge. Refusals of access are values,
 * not errors.
 */
export class ServiceError<C extends ProblemCode = ProblemCode> extends AppError<ProblemKind> {
  readonly problem: C;
  /** What the sentence about it, or a program that goes on after it, needs to know. */
  readonly fields: object;

  constructor(problem: C, ...[fields]: Given<C>) {
    super('ServiceError', PROBLEMS[problem].kind, problem);
    this.problem = problem;
    this.fields = fields ?? {};
  }
}
