import { notFound } from 'next/navigation';
import { linkToken } from '@/contracts/reader';
import { loadForAnyone } from '@/server/http/handle';
import { sharedWith } from '@/server/services/open-document';
import { LinkView } from '@/ui/reader/link-view';
import { ProveAddress } from '@/ui/reader/prove-address';

export default async function LinkPage({ params }: { readonly params: Promise<{ readonly token: string }> }) {
  const parsed = linkToken.safeParse((await params).token);
  if (!parsed.success) notFound();
  const shared = await loadForAnyone((deps, reader) => (reader === null ? Promise.resolve(null) : sharedWith(deps, reader, { token: parsed.data })));
  return shared === null ? <ProveAddress token={parsed.data} /> : <LinkView token={parsed.data} shared={shared} />;
}
