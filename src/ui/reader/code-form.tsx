'use client';

import { useEffect, useState, type ReactNode, type SubmitEvent } from 'react';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { KeepDevice } from '@/ui/reader/keep-device';
import { useWords } from '@/ui/words/use-words';

type Props = {
  readonly isAll: boolean;
  readonly address: string;
  readonly minutes: number;
  readonly busy: boolean;
  readonly problem: ReactNode;
  readonly onEnter: (code: string, kept: boolean) => void;
  /** @returns whether another one is on its way */
  readonly onAgain: () => Promise<boolean>;
  readonly onOther: () => void;
};

/** Where the code is entered, and whether this device is remembered. */
export function CodeForm(props: Props) {
  const { isAll, address, minutes, busy, problem, onEnter, onOther } = props;
  const { say } = useWords();
  const [code, setCode] = useState('');
  const [kept, setKept] = useState('visit');
  return (
    <form
      className="stack loose"
      onSubmit={(event: SubmitEvent) => {
        event.preventDefault();
        onEnter(code, kept === 'kept');
      }}
    >
      <h1>{say('prove.codeHeading')}</h1>
      <p>
        {say.rich(isAll ? 'prove.codeSentAll' : 'prove.codeSent', {
          address,
          minutes: String(minutes),
          b: (text) => <b>{text}</b>,
        })}
      </p>
      <TextField
        label={say('prove.code')}
        required
        autoFocus
        autoComplete="one-time-code"
        value={code}
        onChange={({ target }) => {
          setCode(target.value);
        }}
        slotProps={{ htmlInput: { inputMode: 'numeric', maxLength: 9 } }}
      />
      <KeepDevice kept={kept} onKept={setKept} />
      {problem}
      <div className="row">
        <Button type="submit" variant="contained" disabled={busy}>
          {say('prove.continue')}
        </Button>
        <Button onClick={onOther}>{say('prove.other')}</Button>
      </div>
      <Again {...props} />
    </form>
  );
}

/** How long a mail is waited for before another one can be asked for, in s. */
const WAIT = 30;

/** Another code, after a wait: mail is slow at times, and two codes confuse. */
function Again({ onAgain, busy }: Pick<Props, 'onAgain' | 'busy'>) {
  const { say } = useWords();
  const [seconds, setSeconds] = useState(WAIT);
  const [isSent, setSent] = useState(false);
  useEffect(() => {
    const timer = setInterval(() => {
      setSeconds((left) => Math.max(0, left - 1));
    }, 1_000);
    return () => {
      clearInterval(timer);
    };
  }, []);
  return (
    <div className="stack">
      <p className="quiet" role="status">
        {isSent ? say('prove.sentAgain') : say('prove.noCode')}
      </p>
      <div className="row">
        <Button
          size="small"
          disabled={busy || seconds > 0}
          onClick={() => {
            setSeconds(WAIT);
            void onAgain().then(setSent);
          }}
        >
          {seconds > 0 ? say('prove.againIn', { seconds: String(seconds) }) : say('prove.again')}
        </Button>
      </div>
    </div>
  );
}
