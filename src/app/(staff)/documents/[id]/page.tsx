import { documentInput } from '@/contracts/document';
import { loadForStaff } from '@/server/http/handle';
import { viewDocument } from '@/server/services/documents/view-document';
import { DocumentView } from '@/ui/documents/document-view';

export default async function DocumentPage({
  params,
}: {
  readonly params: Promise<{ readonly id: string }>;
}) {
  const given = await params;
  const { detail, now } = await loadForStaff('look', async (deps, actor) => ({
    detail: await viewDocument(deps, actor, documentInput.parse(given)),
    now: deps.clock.now(),
  }));
  return <DocumentView detail={detail} now={now} />;
}
