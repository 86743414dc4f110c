import { documentInput } from '@/contracts/document';
import { loadForStaff } from '@/server/http/handle';
import { nameOfDocument } from '@/server/services/documents/check-document';
import { RevisionsPage } from '@/ui/documents/revisions-page';

export default async function DocumentRevisionsPage({
  params,
}: {
  readonly params: Promise<{ readonly id: string }>;
}) {
  const { id } = documentInput.parse(await params);
  const named = await loadForStaff('look', (deps, actor) => nameOfDocument(deps, actor, { id }));
  return <RevisionsPage id={id} {...named} />;
}
