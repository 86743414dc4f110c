import { loadForAnyone } from '@/server/http/handle';
import { OpenFile } from '@/ui/reader/open-file';
import { SentView } from '@/ui/reader/sent-view';

/** Somebody whose address this browser remembers sees what was sent to them; anybody may open a file. */
export default async function ReaderPage() {
  const proven = await loadForAnyone((_deps, said) => Promise.resolve(said));
  return proven ? <SentView entry={<OpenFile />} /> : <OpenFile />;
}
