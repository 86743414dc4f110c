import { notFound } from 'next/navigation';
import { linkToken } from '@/contracts/reader';
import { loadForAnyone } from '@/server/http/handle';
import { sharedWith } from '@/server/services/shared-with';
import { proofAsked } from '@/server/services/visit-link';
import { LinkView } from '@/ui/reader/link-view';
import { ProveAddress } from '@/ui/reader/prove-address';
import { VisitLink } from '@/ui/reader/visit-link';

export default async function LinkPage({ params }: { readonly params: Promise<{ readonly token: string }> }) {
  const parsed = linkToken.safeParse((await params).token);
  if (!parsed.success) notFound();
  const { asks, shared } = await loadForAnyone(async (deps, reader) => ({ asks: await proofAsked(deps, parsed.data), shared: reader === null ? null : await sharedWith(deps, reader, { token: parsed.data }) }));
  if (shared === null) return asks === 'nothing' ? <VisitLink token={parsed.data} /> : <ProveAddress token={parsed.data} />;
  return <LinkView token={parsed.data} shared={shared} />;
}
