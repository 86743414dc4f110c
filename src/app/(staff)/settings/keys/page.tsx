import { loadForStaff } from '@/server/http/handle';
import { viewKeys } from '@/server/services/keys/manage-keys';
import { KeysView } from '@/ui/settings/keys-view';

export default async function KeysPage() {
  return <KeysView page={await loadForStaff('settings', viewKeys)} />;
}
