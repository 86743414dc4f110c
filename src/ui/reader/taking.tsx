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

/** What one may take along: prints, a copy, and the protected file that is read on this machine. */
export function Taking({
  opened: { rights, licence, version, pages, isLocal, hasFile, offline },
  own,
  take,
}: {
  readonly opened: OpenResult & { readonly outcome: 'granted' };
  readonly own: OwnState;
  readonly take: Take;
}) {
  const { pick } = usePickedFile();
  const { say } = useWords();
  const base = `/api/v1/reader/licences/${licence}`;
  if (isLocal)
    return rights.print.granted || rights.keep.granted ? (
      <p className="quiet">{say('own.noTaking')}</p>
    ) : null;
  return (
    <>
      {rights.print.granted && pages > 0 && (
        <PrintControl
          pages={pages}
          left={rights.print.printsLeft}
          onPrint={(from, to) => void take(`${base}/print`, { from, to }, () => say('print.saved'))}
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
      {rights.keep.granted && (
        <Button
          onClick={() =>
            void take(`${base}/keep`, {}, (isMarked) =>
              say(isMarked ? 'take.keptMarked' : 'take.keptPlain'),
            )
          }
        >
          {say('take.keep')}
        </Button>
      )}
    </>
  );
}
