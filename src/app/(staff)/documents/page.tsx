import { loadForStaff } from '@/server/http/handle';
import { listDocuments } from '@/server/services/list-documents';
import { DocumentsView } from '@/ui/documents/documents-view';

export default async function DocumentsPage() {
  return <DocumentsView rows={await loadForStaff('look', listDocuments)} />;
}
