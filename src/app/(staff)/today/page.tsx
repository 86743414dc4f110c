import { loadForStaff } from '@/server/http/handle';
import { viewToday } from '@/server/services/view-today';
import { TodayView } from '@/ui/today/today-view';

export default async function TodayRoute() {
  return <TodayView page={await loadForStaff('look', viewToday)} />;
}
