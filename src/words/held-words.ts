import type { HeldRow } from '@/contracts/dispatch';
import type { HeldId } from '@/core/base/ids';
import { problemText, STAFF, type ThrownProblem } from '@/words/problem-text';

/** What is held back, as a use case tells it. */
type Held = {
  readonly id: HeldId;
  readonly by: string;
  readonly own: boolean;
  readonly approved: boolean;
  readonly leavesAt: number;
  readonly input: {
    readonly subject: string;
    readonly documents: readonly unknown[];
    readonly recipients: readonly unknown[];
    readonly groups?: readonly unknown[] | undefined;
    readonly domains?: readonly unknown[] | undefined;
  };
  readonly problem: ThrownProblem | null;
};

/** The same as a page shows it, with why one could not leave in a sentence. */
export function heldRows(found: readonly Held[]): HeldRow[] {
  return found.map(({ id, by, own, approved, leavesAt, input, problem }) => ({
    id,
    by,
    own,
    approved,
    leavesAt,
    subject: input.subject,
    documents: input.documents.length,
    recipients:
      input.recipients.length + (input.groups?.length ?? 0) + (input.domains?.length ?? 0),
    problem: problem === null ? null : problemText(problem, STAFF),
  }));
}
