import Button from '@mui/material/Button';
import type { OpenResult } from '@/contracts/reader';
import { FileTaker } from '@/ui/reader/open-file';
import { ReaderBrand } from '@/ui/shell/reader-brand';
import { Problem } from '@/ui/shell/notice';
import { useWords } from '@/ui/words/use-words';

/** A document whose content is in its protected file alone: that has to be picked first. */
export function NeedsFile({
  opened: { title, reference, sender },
  isWrong,
  onBack,
}: {
  readonly opened: OpenResult & { readonly outcome: 'granted' };
  /** A file was picked that could not be opened. */
  readonly isWrong: boolean;
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
        {isWrong && <Problem words={say('own.wrongFile', { sender: sender.name })} />}
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
