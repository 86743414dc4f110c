import { documentInput } from '@/contracts/document';
import { loadForStaff } from '@/server/http/handle';
import { checkDocument } from '@/server/services/documents/check-document';
import { CheckPages } from '@/ui/documents/check-pages';

export default async function CheckPage({
  params,
}: {
  readonly params: Promise<{ readonly id: string }>;
}) {
  const input = documentInput.parse(await params);
  return (
    <CheckPages
      view={await loadForStaff('look', (deps, actor) => checkDocument(deps, actor, input))}
    />
  );
}
