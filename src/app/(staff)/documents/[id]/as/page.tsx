import { seenPageInput } from '@/contracts/explain';
import { loadForStaff } from '@/server/http/handle';
import { nameOfDocument } from '@/server/services/documents/check-document';
import { SeenPage } from '@/ui/seen/seen-page';

export default async function SeenAsPage({
  params,
  searchParams,
}: {
  readonly params: Promise<{ readonly id: string }>;
  readonly searchParams: Promise<Readonly<Record<string, string | string[] | undefined>>>;
}) {
  const { id, recipient } = seenPageInput.parse({ ...(await searchParams), ...(await params) });
  // Only who answers for a document is shown its pages.
  await loadForStaff('look', (deps, actor) => nameOfDocument(deps, actor, { id }));
  return <SeenPage document={id} recipient={recipient} />;
}
