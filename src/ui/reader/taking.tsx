import Button from '@mui/material/Button';
import type { OpenResult } from '@/contracts/reader';
import { usePickedFile } from '@/ui/reader/picked-file';
import { PrintControl } from '@/ui/reader/print-control';
import type { OwnState } from '@/ui/reader/use-own-reading';
import { useWords } from '@/ui/words/use-words';

/** Asks for a file and saves it; `done` says what there is to say then. */
export type Take = (
  path: string,
  body: unknown,
  done: (isMarked: boolean, file: File) => string,
) => Promise<void>;

/** Has a copy made; what it comes to is what there is to say then. */
export type Make = (copy: () => Promise<string>) => Promise<void>;

/** What one may take along: prints, a copy, and the protected file that is read on this machine. */
export function Taking({
  opened: { rights, licence, version, pages, isLocal, hasFile, offline },
  own,
  take,
  make,
}: {
  readonly opened: OpenResult & { readonly outcome: 'granted' };
  readonly own: OwnState;
  readonly take: Take;
  readonly make: Make;
}) {
  const { pick } = usePickedFile();
  const { say } = useWords();
  const base = `/api/v1/reader/licences/${licence}`;
  // What is on this machine alone is printed and kept from here.
  const here = isLocal && own.kind === 'open' ? own.reading.copies : null;
  const print = (from: number, to: number) =>
    here === null
      ? take(`${base}/print`, { from, to }, () => say('print.saved'))
      : make(() => here.print(from, to).then(() => say('print.saved')));
  const keptWords = (isMarked: boolean) => say(isMarked ? 'take.keptMarked' : 'take.keptPlain');
  const keep = () =>
    here === null ? take(`${base}/keep`, {}, keptWords) : make(() => here.keep().then(keptWords));
  return (
    <>
      {rights.print.granted && pages > 0 && (
        <PrintControl
          pages={pages}
          left={rights.print.printsLeft}
          onPrint={(from, to) => void print(from, to)}
        />
      )}
      {own.kind === 'none' && hasFile && offline !== null && (
        <Button
          onClick={() =>
            void take(`${base}/file`, {}, (_isMarked, file) => {
              pick({ file, version });
              return say('own.here', { name: file.name });
            })
          }
        >
          {say('own.take')}
        </Button>
      )}
      {rights.keep.granted && <Button onClick={() => void keep()}>{say('take.keep')}</Button>}
    </>
  );
}
