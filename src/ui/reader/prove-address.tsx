'use client';

import { useState, useSyncExternalStore, type ReactNode, type SubmitEvent } from 'react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { call, sentenceOf } from '@/ui/http/call';
import { CodeForm } from '@/ui/reader/code-form';
import { forgetAddress, lastAddress, rememberAddress } from '@/ui/reader/last-address';
import { makeDeviceKey } from '@/ui/reader/device-key';
import { EnterByPasskey } from '@/ui/reader/enter-by-passkey';
import { LanguageChoice } from '@/ui/reader/language-choice';
import { ReaderBrand } from '@/ui/shell/reader-brand';
import { usePickedFile } from '@/ui/reader/picked-file';
import { Problem } from '@/ui/shell/notice';
import { useWords } from '@/ui/words/use-words';

const never = () => () => undefined;

/**
 * Two steps: the address, then the code that was mailed to it. Before the proof nothing is shown of
 * what was sent. `token`: of the link that was followed; null: to see all that was sent.
 */
export function ProveAddress({ token }: { readonly token: string | null }) {
  const { say } = useWords();
  const last = useSyncExternalStore(never, lastAddress, () => '');
  const [typed, setTyped] = useState<string | null>(null);
  const address = typed ?? last;
  const router = useRouter();
  const { picked } = usePickedFile();
  const [minutes, setMinutes] = useState<number | null>(null);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);

  const goOn = (proven: string, kept: boolean): void => {
    if (kept) rememberAddress(proven);
    else forgetAddress();
    // A file that was picked before is held by this page alone.
    if (picked === null) window.location.reload();
    else router.refresh();
  };
  const attempt = async (work: () => Promise<void>): Promise<boolean> => {
    setBusy(true);
    setProblem(null);
    try {
      await work();
      return true;
    } catch (error) {
      setProblem(sentenceOf(error));
      return false;
    } finally {
      setBusy(false);
    }
  };
  const ask = () =>
    attempt(async () => {
      const body = { token, address };
      const sent = await call<{ readonly minutes: number }>('POST', '/api/v1/reader/code', body);
      setMinutes(sent.minutes);
    });
  const enter = (code: string, kept: boolean) =>
    attempt(async () => {
      const publicKey = await makeDeviceKey();
      await call('POST', '/api/v1/reader/device', { token, address, code, kept, publicKey });
      goOn(address, kept);
    });
  return (
    <main className="entry">
      <ReaderBrand />
      {minutes === null ? (
        <AddressForm
          isAll={token === null}
          address={address}
          onAddress={setTyped}
          busy={busy}
          problem={<Problem words={problem} />}
          onAsk={() => void ask()}
        />
      ) : (
        <CodeForm
          isAll={token === null}
          address={address}
          minutes={minutes}
          busy={busy}
          problem={<Problem words={problem} />}
          onEnter={(code, kept) => void enter(code, kept)}
          onAgain={ask}
          onOther={() => {
            setMinutes(null);
            setProblem(null);
          }}
        />
      )}
      {minutes === null && (
        <EnterByPasskey
          onEntered={(entered, kept) => {
            goOn(entered, kept);
          }}
        />
      )}
      <hr />
      <p className="quiet">
        {token === null ? (
          <Link href="/r" prefetch={false}>
            {say('file.heading')}
          </Link>
        ) : (
          say.rich('prove.fileInstead', {
            link: (text) => (
              <Link href="/r" prefetch={false}>
                {text}
              </Link>
            ),
          })
        )}
      </p>
      <p className="quiet">{say('recorded.you')}</p>
      <LanguageChoice />
    </main>
  );
}

function AddressForm({
  isAll,
  address,
  onAddress,
  busy,
  problem,
  onAsk,
}: {
  readonly isAll: boolean;
  readonly address: string;
  readonly onAddress: (address: string) => void;
  readonly busy: boolean;
  readonly problem: ReactNode;
  readonly onAsk: () => void;
}) {
  const { say } = useWords();
  return (
    <form
      className="stack loose"
      onSubmit={(event: SubmitEvent) => {
        event.preventDefault();
        onAsk();
      }}
    >
      <h1>{say(isAll ? 'prove.headingAll' : 'prove.heading')}</h1>
      <p>{say(isAll ? 'prove.introAll' : 'prove.intro')}</p>
      <TextField
        label={say('prove.address')}
        type="email"
        autoComplete="email"
        required
        autoFocus
        value={address}
        onChange={({ target }) => {
          onAddress(target.value);
        }}
      />
      {problem}
      <div className="row">
        <Button type="submit" variant="contained" disabled={busy}>
          {say('prove.send')}
        </Button>
      </div>
    </form>
  );
}
