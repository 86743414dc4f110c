import { documentId } from '@/contracts/document';
import { loadForStaff } from '@/server/http/handle';
import { startCompose } from '@/server/services/start-compose';
import { ComposeView } from '@/ui/compose/compose-view';

export default async function ComposePage({ searchParams }: { readonly searchParams: Promise<{ readonly document?: string }> }) {
  const chosen = documentId.safeParse((await searchParams).document);
  return <ComposeView {...await loadForStaff('dispatch', startCompose)} chosen={chosen.success ? [chosen.data] : []} />;
}
