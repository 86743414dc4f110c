import { documentId } from '@/contracts/document';
import { draftId } from '@/contracts/dispatch';
import { loadForStaff } from '@/server/http/handle';
import { startCompose } from '@/server/services/dispatching/start-compose';
import { ComposeView } from '@/ui/compose/compose-view';

export default async function ComposePage({
  searchParams,
}: {
  readonly searchParams: Promise<{ readonly document?: string; readonly draft?: string }>;
}) {
  const given = await searchParams;
  const chosen = (given.document ?? '').split(',').flatMap((id) => {
    const parsed = documentId.safeParse(id);
    return parsed.success ? [parsed.data] : [];
  });
  const draft = draftId.safeParse(given.draft);
  const start = await loadForStaff('dispatch', (deps, actor) =>
    startCompose(deps, actor, { draft: draft.success ? draft.data : null, chosen }),
  );
  return <ComposeView key={start.draft?.id ?? 'new'} start={start} chosen={chosen} />;
}
