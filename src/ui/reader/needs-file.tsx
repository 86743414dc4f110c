import Button from '@mui/material/Button';
import type { OpenResult } from '@/contracts/reader';
import { FileTaker } from '@/ui/reader/open-file';
import { ReaderBrand } from '@/ui/shell/reader-brand';
import { Problem } from '@/ui/shell/notice';
import { useWords } from '@/ui/words/use-words';

/** A document whose content is in its protected file alone: that has to be picked first. */
export function NeedsFile({
  opened: { title, reference, sender },
  problem,
  onBack,
}: {
  readonly opened: OpenResult & { readonly outcome: 'granted' };
  /** Why the file that was picked could not be opened; null: none was. */
  readonly problem: string | null;
  readonly onBack: (() => void) | null;
}) {
  const { say } = useWords();
  return (
    <main className="entry">
      <ReaderBrand />
      <div className="stack loose">
        <h1 dir="auto">{title}</h1>
        <p className="figure quiet">{reference}</p>
        <p>{say('own.needsFile', { sender: sender.name })}</p>
        <Problem words={problem} />
        <FileTaker />
        {onBack !== null && (
          <div className="row">
            <Button onClick={onBack}>{say('refusal.back')}</Button>
          </div>
        )}
      </div>
    </main>
  );
}
