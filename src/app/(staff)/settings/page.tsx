import { loadForStaff } from '@/server/http/handle';
import { viewStaff } from '@/server/services/staff/manage-staff';
import { StaffView } from '@/ui/settings/staff-view';

export default async function SettingsPage() {
  return <StaffView {...await loadForStaff('manage-staff', viewStaff)} />;
}
