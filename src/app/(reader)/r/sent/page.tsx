import { loadForAnyone } from '@/server/http/handle';
import { ProveAddress } from '@/ui/reader/prove-address';
import { SentView } from '@/ui/reader/sent-view';

export default async function SentPage() {
  const proven = await loadForAnyone((_deps, said) => Promise.resolve(said));
  const entry = <ProveAddress token={null} />;
  // What was sent is asked for by a signed request: a cookie alone is shown nothing.
  return proven ? <SentView entry={entry} /> : entry;
}
