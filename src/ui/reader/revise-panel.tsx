'use client';

import { useRef, useState } from 'react';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import type { LicenceId } from '@/core/base/ids';
import type { OwnRevision } from '@/contracts/own-revision';
import { MAX_REVISION } from '@/core/content/revision';
import { sentenceOf } from '@/ui/http/call';
import { RefusedError, type OnRefused } from '@/ui/pages/refused';
import { sendRevision } from '@/ui/reader/send-revision';
import type { TextEdit } from '@/ui/reader/use-text-edit';
import { Problem } from '@/ui/shell/notice';
import { Moment } from '@/ui/time/moment';
import { useWords } from '@/ui/words/use-words';

type Props = {
  readonly licence: LicenceId;
  readonly may: boolean;
  readonly sender: string;
  readonly revisions: readonly OwnRevision[];
  /** What is known once something was sent. */
  readonly onSent: (revisions: readonly OwnRevision[]) => void;
  readonly edit: TextEdit;
  readonly onRefused: OnRefused;
};

/** Where a changed file is sent back, and what came of those that were. */
export function RevisePanel(props: Props) {
  const { may, revisions, edit } = props;
  const { say } = useWords();
  if (!may && revisions.length === 0) return null;
  return (
    <section className="stack" aria-label={say('revise.heading')}>
      <h2>{say('revise.heading')}</h2>
      {revisions.map(({ id, fileName, sentAt, state, answer }) => (
        <p key={id}>
          <b>{fileName}</b>{' '}
          <span className="quiet">
            {say.rich('revise.sent', {
              when: () => <Moment at={sentAt} />,
              state: say(`revise.states.${state}`),
            })}
          </span>
          {answer !== '' && <span className="under">{say('ask.answered', { text: answer })}</span>}
        </p>
      ))}
      {may && edit.isOffered && edit.text === null && (
        <div className="row">
          <Button disabled={edit.isBusy} onClick={() => void edit.begin()}>
            {say('revise.changeText')}
          </Button>
        </div>
      )}
      {may && edit.text === null && <Problem words={edit.problem} />}
      {may && edit.text === null && <SendFile {...props} />}
    </section>
  );
}

function SendFile({
  licence,
  sender,
  onSent,
  onRefused,
}: Pick<Props, 'licence' | 'sender' | 'onRefused' | 'onSent'>) {
  const { say } = useWords();
  const picker = useRef<HTMLInputElement>(null);
  const [note, setNote] = useState('');
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const send = async (file: File) => {
    if (file.size > MAX_REVISION) {
      setProblem(say('revise.tooLarge'));
      return;
    }
    setBusy(true);
    setProblem(null);
    try {
      onSent(await sendRevision(licence, file, note));
      setNote('');
    } catch (error) {
      if (error instanceof RefusedError) onRefused(error.reason, error.at);
      else setProblem(sentenceOf(error));
    } finally {
      setBusy(false);
    }
  };
  return (
    <>
      <input
        ref={picker}
        type="file"
        hidden
        aria-label={say('revise.file')}
        onChange={({ target }) => {
          const [file] = target.files ?? [];
          target.value = '';
          if (file !== undefined) void send(file);
        }}
      />
      <TextField
        label={say('revise.what')}
        multiline
        value={note}
        onChange={({ target }) => {
          setNote(target.value);
        }}
        slotProps={{ htmlInput: { maxLength: 500 } }}
      />
      <div className="row">
        <Button disabled={busy} onClick={() => picker.current?.click()}>
          {busy ? say('revise.being') : say('revise.send')}
        </Button>
      </div>
      <p className="quiet">{say('revise.compared', { sender })}</p>
      {problem !== null && (
        <p role="alert" className="magenta">
          {problem}
        </p>
      )}
    </>
  );
}
