'use client';

import { useCallback, useEffect, useState, type ReactNode } from 'react';
import Button from '@mui/material/Button';
import type { DocumentId } from '@/core/base/ids';
import type {
  OpenResult,
  OpenState,
  PassedOn,
  SharedDocument,
  SharedWith,
} from '@/contracts/reader';
import type { OwnRequest } from '@/contracts/requests';
import { RIGHTS } from '@/core/policy/rights';
import { CallError, sentenceOf } from '@/ui/http/call';
import { forgetDeviceKey } from '@/ui/reader/device-key';
import { AskForm } from '@/ui/reader/ask-form';
import { PassOnPanel } from '@/ui/reader/pass-on-panel';
import { ReaderView } from '@/ui/reader/reader-view';
import { RightsPanel } from '@/ui/reader/rights-panel';
import { useAsking } from '@/ui/reader/use-asking';
import { Refusal } from '@/ui/reader/refusal';
import { readerCall } from '@/ui/reader/reader-call';
import { forgetViews } from '@/ui/pages/use-page-view';
import { SharedList } from '@/ui/reader/shared-list';

/** Ends this device, so that another address can be proven. */
async function leave(): Promise<void> {
  await readerCall('POST', '/api/v1/reader/leave', {}).catch(() => undefined);
  forgetViews();
  await forgetDeviceKey().catch(() => undefined);
  window.location.reload();
}

/**
 * What a link leads to, asked for with this browser's signature; `entry` is shown where that is
 * not, or no longer, accepted.
 */
export function LinkView({ token, entry }: { readonly token: string; readonly entry: ReactNode }) {
  const [shared, setShared] = useState<SharedWith | null>(null);
  const [failed, setFailed] = useState<unknown>(null);
  useEffect(() => {
    let current = true;
    readerCall<SharedWith>('GET', `/api/v1/reader/shared?token=${token}`).then(
      (result) => {
        if (current) setShared(result);
      },
      (error: unknown) => {
        if (current) setFailed(error);
      },
    );
    return () => {
      current = false;
    };
  }, [token]);
  if (failed instanceof CallError && failed.code === 'NOT_SIGNED_IN') return entry;
  if (failed !== null) return <Stuck words={sentenceOf(failed)} />;
  if (shared === null) return <Opening />;
  return <LedTo token={token} shared={shared} />;
}

function Opening() {
  return (
    <main className="blank">
      <p role="status">Opening…</p>
    </main>
  );
}

/** What went wrong, and a way to begin again. */
function Stuck({ words, onLeave }: { readonly words: string; readonly onLeave?: () => void }) {
  return (
    <main className="blank">
      <div className="stack">
        <h1>{words}</h1>
        <div className="row">
          <Button
            onClick={() => {
              window.location.reload();
            }}
          >
            Try again
          </Button>
          {onLeave !== undefined && (
            <Button onClick={onLeave}>Prove your email address again</Button>
          )}
        </div>
      </div>
    </main>
  );
}

/** What an open is now, after something about it changed. */
function changed(opened: OpenResult | null, state: Partial<OpenState>): OpenResult | null {
  if (opened?.outcome === 'granted') return { ...opened, ...state };
  if (opened === null || state.requests === undefined) return opened;
  return { ...opened, requests: state.requests };
}

/** Opens a document whenever another one is chosen, or the open before is over. */
function useOpen(token: string, chosen: DocumentId | null) {
  const [opened, setOpened] = useState<OpenResult | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [opens, setOpens] = useState(0);
  useEffect(() => {
    if (chosen === null) return undefined;
    let current = true;
    readerCall<OpenResult>('POST', '/api/v1/reader/open', { token, document: chosen }).then(
      (result) => {
        if (current) setOpened(result);
      },
      (error: unknown) => {
        if (current) setProblem(sentenceOf(error));
      },
    );
    return () => {
      current = false;
    };
  }, [chosen, token, opens]);
  return {
    opened,
    problem,
    openAgain: useCallback(() => {
      setOpens((before) => before + 1);
    }, []),
    change: useCallback((state: Partial<OpenState>) => {
      setOpened((before) => changed(before, state));
    }, []),
    close: () => {
      setOpened(null);
      setProblem(null);
    },
  };
}

function isCounted({ state }: SharedDocument): boolean {
  return state.open && state.opensLeft !== null;
}

/** The one document at once, or the list. */
function LedTo({ token, shared }: { readonly token: string; readonly shared: SharedWith }) {
  const [alone] = shared.documents.length === 1 ? shared.documents : [];
  // Where opens are counted, one is spent only when somebody says so.
  const single = alone !== undefined && !isCounted(alone) ? alone.id : null;
  const [chosen, setChosen] = useState<DocumentId | null>(single);
  const { opened, problem, openAgain, change, close } = useOpen(token, chosen);
  const onLeave = () => void leave();
  const back = () => {
    setChosen(null);
    close();
  };
  if (shared.sender === null)
    return (
      <Refusal
        reason="not-addressed"
        at={null}
        address={shared.address}
        sender={null}
        onLeave={onLeave}
        onBack={null}
        more={null}
      />
    );
  if (problem !== null) return <Stuck words={problem} onLeave={onLeave} />;
  if (chosen === null) return <SharedList shared={shared} onOpen={setChosen} onLeave={onLeave} />;
  if (opened === null) return <Opening />;
  const onBack = single === null ? back : null;
  const more = <More token={token} document={chosen} opened={opened} change={change} />;
  return opened.outcome === 'refused' ? (
    <Refusal
      reason={opened.reason}
      at={opened.at}
      address={opened.address}
      sender={opened.sender}
      onLeave={onLeave}
      onBack={onBack}
      more={more}
    />
  ) : (
    <ReaderView
      opened={opened}
      onOpenAgain={openAgain}
      onState={change}
      more={more}
      onLeave={onLeave}
      onBack={onBack}
    />
  );
}

/** What a reader can do besides reading: pass it on, and ask. */
function More({
  token,
  document,
  opened,
  change,
}: {
  readonly token: string;
  readonly document: DocumentId;
  readonly opened: OpenResult;
  readonly change: (state: Partial<OpenState>) => void;
}) {
  const setRequests = useCallback(
    (requests: readonly OwnRequest[]) => {
      change({ requests });
    },
    [change],
  );
  const setPassedOn = useCallback(
    (passedOn: readonly PassedOn[]) => {
      change({ passedOn });
    },
    [change],
  );
  const granted =
    opened.outcome === 'granted' ? RIGHTS.filter((right) => opened.rights[right].granted) : null;
  const asking = useAsking();
  return (
    <>
      {opened.outcome === 'granted' && (
        <RightsPanel
          rights={opened.rights}
          sender={opened.sender.name}
          requests={opened.requests}
          onAsk={asking.begin}
        />
      )}
      {opened.outcome === 'granted' && (
        <PassOnPanel
          key={opened.licence}
          document={document}
          opened={opened}
          granted={granted ?? []}
          onPassedOn={setPassedOn}
        />
      )}
      <AskForm
        token={token}
        document={document}
        sender={opened.sender?.name ?? 'the sender'}
        requests={opened.requests}
        onRequests={setRequests}
        granted={granted ?? ['read']}
        asking={asking}
      />
    </>
  );
}
