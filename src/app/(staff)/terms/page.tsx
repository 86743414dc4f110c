import { loadForStaff } from '@/server/http/handle';
import { viewTerms } from '@/server/services/filing/manage-filing';
import { TermsView } from '@/ui/terms/terms-view';

export default async function TermsRoute() {
  return <TermsView page={await loadForStaff('look', viewTerms)} />;
}
