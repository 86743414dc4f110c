import { notFound } from 'next/navigation';
import { linkToken } from '@/contracts/link-token';
import { loadForAnyone } from '@/server/http/handle';
import { proofAsked } from '@/server/services/reading/visit-link';
import { LinkView } from '@/ui/reader/link-view';
import { ProveAddress } from '@/ui/reader/prove-address';
import { VisitLink } from '@/ui/reader/visit-link';

export default async function LinkPage({
  params,
}: {
  readonly params: Promise<{ readonly token: string }>;
}) {
  const parsed = linkToken.safeParse((await params).token);
  if (!parsed.success) notFound();
  const { asks, proven } = await loadForAnyone(async (deps, said) => ({
    asks: await proofAsked(deps, parsed.data),
    proven: said,
  }));
  const entry =
    asks === 'nothing' ? <VisitLink token={parsed.data} /> : <ProveAddress token={parsed.data} />;
  // What a link leads to is asked for by a signed request: a cookie alone is shown nothing.
  return proven ? <LinkView token={parsed.data} entry={entry} /> : entry;
}
