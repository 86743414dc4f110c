import { listDocumentsInput } from '@/contracts/document';
import { loadForStaff } from '@/server/http/handle';
import { viewDocuments } from '@/server/services/documents/list-documents';
import { DocumentsView } from '@/ui/documents/documents-view';

export default async function DocumentsPage({
  searchParams,
}: {
  readonly searchParams: Promise<Record<string, string>>;
}) {
  const given = await searchParams;
  const page = await loadForStaff('look', (deps, actor) =>
    viewDocuments(deps, actor, listDocumentsInput.parse(given)),
  );
  return <DocumentsView page={page} />;
}
