import { loadForStaff } from '@/server/http/handle';
import { viewYou } from '@/server/services/staff/prove-staff';
import { YouView } from '@/ui/you/you-view';

export default async function YouRoute() {
  return <YouView you={await loadForStaff('staff', viewYou)} />;
}
