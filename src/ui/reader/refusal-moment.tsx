import type { RefusalReason } from '@/core/policy/decide';
import { Moment } from '@/ui/time/moment';
import { useWords } from '@/ui/words/use-words';

/** When it ended or will begin; of hours, when they begin again. */
export function RefusalMoment({
  reason,
  at,
}: {
  readonly reason: RefusalReason;
  readonly at: number;
}) {
  const { say } = useWords();
  if (reason !== 'hours-not-allowed') return <Moment at={at} named />;
  return say.rich('refusal.opensAgain', { when: () => <Moment at={at} named /> });
}
