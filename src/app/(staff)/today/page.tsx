import { todayInput } from '@/contracts/today';
import { loadForStaff } from '@/server/http/handle';
import { viewToday } from '@/server/services/overview/view-today';
import { TodayView } from '@/ui/today/today-view';

export default async function TodayRoute({
  searchParams,
}: {
  readonly searchParams: Promise<Record<string, string>>;
}) {
  const given = await searchParams;
  return (
    <TodayView
      page={await loadForStaff('look', (deps, actor) =>
        viewToday(deps, actor, todayInput.parse(given)),
      )}
    />
  );
}
