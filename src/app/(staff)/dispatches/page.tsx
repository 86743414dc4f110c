import { loadForStaff } from '@/server/http/handle';
import { listDispatches } from '@/server/services/dispatching/list-dispatches';
import { DispatchesView } from '@/ui/dispatches/dispatches-view';

export default async function DispatchesPage() {
  return <DispatchesView rows={await loadForStaff('look', listDispatches)} />;
}
