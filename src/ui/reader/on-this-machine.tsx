import type { OwnState } from '@/ui/reader/use-own-reading';
import { useWords } from '@/ui/words/use-words';

/** Where the pages come from, where somebody picked a file. */
export function OnThisMachine({ own }: { readonly own: OwnState }) {
  const { say } = useWords();
  if (own.kind === 'failed') return <p className="notice">{own.why}</p>;
  return own.kind === 'open' ? (
    <p className="quiet" dir="auto">
      {say('own.here', { name: own.name })}
    </p>
  ) : null;
}
