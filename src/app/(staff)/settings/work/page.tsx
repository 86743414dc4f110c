import { loadForStaff } from '@/server/http/handle';
import { viewWorkSettings } from '@/server/services/base/work-settings';
import { viewNotice } from '@/server/services/reading/reader-notice';
import { WorkView } from '@/ui/settings/work-view';

export default async function WorkPage() {
  const [settings, notice] = await loadForStaff('settings', (deps) =>
    Promise.all([viewWorkSettings(deps), viewNotice(deps)]),
  );
  return <WorkView settings={settings} notice={notice} />;
}
