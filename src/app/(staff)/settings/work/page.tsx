import { loadForStaff } from '@/server/http/handle';
import { viewWorkSettings } from '@/server/services/base/work-settings';
import { WorkView } from '@/ui/settings/work-view';

export default async function WorkPage() {
  return <WorkView settings={await loadForStaff('settings', viewWorkSettings)} />;
}
