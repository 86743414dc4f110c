'use client';

import { useCallback, useEffect, useState, type ReactNode } from 'react';
import Button from '@mui/material/Button';
import type { DocumentId } from '@/core/base/ids';
import type { OpenResult, OpenState, PassedOn, SharedWith } from '@/contracts/reader';
import type { OwnRequest } from '@/contracts/requests';
import { RIGHTS } from '@/core/policy/rights';
import { CallError, sentenceOf } from '@/ui/http/call';
import { forgetDeviceKey } from '@/ui/reader/device-key';
import { AskForm } from '@/ui/reader/ask-form';
import { PassOnPanel } from '@/ui/reader/pass-on-panel';
import { ReaderView } from '@/ui/reader/reader-view';
import { Refusal } from '@/ui/reader/refusal';
import { readerCall } from '@/ui/reader/reader-call';
import { SharedList } from '@/ui/reader/shared-list';

/** Ends this device, so that another address can be proven. */
async function leave(): Promise<void> {
  await readerCall('POST', '/api/v1/reader/leave', {}).catch(() => undefined);
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
  if (failed !== null)
    return (
      <main className="blank">
        <div className="stack">
          <h1>{sentenceOf(failed)}</h1>
          <div className="row">
            <Button
              onClick={() => {
                window.location.reload();
              }}
            >
              Try again
            </Button>
          </div>
        </div>
      </main>
    );
  if (shared === null)
    return (
      <main className="blank">
        <p role="status">Opening…</p>
      </main>
    );
  return <LedTo token={token} shared={shared} />;
}

/** The one document at once, or the list. */
function LedTo({ token, shared }: { readonly token: string; readonly shared: SharedWith }) {
  const single = shared.documents.length === 1 ? (shared.documents[0]?.id ?? null) : null;
  const [chosen, setChosen] = useState<DocumentId | null>(single);
  const [opened, setOpened] = useState<OpenResult | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [opens, setOpens] = useState(0);
  const openAgain = useCallback(() => {
    setOpens((before) => before + 1);
  }, []);

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

  const change = useCallback((state: Partial<OpenState>) => {
    setOpened((before) =>
      before?.outcome === 'granted'
        ? { ...before, ...state }
        : before !== null && state.requests !== undefined
          ? { ...before, requests: state.requests }
          : before,
    );
  }, []);
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

  const back = () => {
    setChosen(null);
    setOpened(null);
    setProblem(null);
  };
  if (shared.sender === null)
    return (
      <Refusal
        reason="not-addressed"
        at={null}
        address={shared.address}
        sender={null}
        onLeave={() => void leave()}
        onBack={null}
        more={null}
      />
    );
  if (problem !== null) {
    return (
      <main className="blank">
        <div className="stack">
          <h1>{problem}</h1>
          <div className="row">
            <Button
              onClick={() => {
                window.location.reload();
              }}
            >
              Try again
            </Button>
            <Button onClick={() => void leave()}>Prove your email address again</Button>
          </div>
        </div>
      </main>
    );
  }
  if (chosen === null)
    return <SharedList shared={shared} onOpen={setChosen} onLeave={() => void leave()} />;
  if (opened === null)
    return (
      <main className="blank">
        <p role="status">Opening…</p>
      </main>
    );
  if (opened.outcome === 'refused')
    return (
      <Refusal
        reason={opened.reason}
        at={opened.at}
        address={opened.address}
        sender={opened.sender}
        onLeave={() => void leave()}
        onBack={single === null ? back : null}
        more={
          <AskForm
            token={token}
            document={chosen}
            sender={opened.sender?.name ?? 'the sender'}
            requests={opened.requests}
            onRequests={setRequests}
            granted={['read']}
          />
        }
      />
    );
  const granted = RIGHTS.filter((right) => opened.rights[right].granted);
  return (
    <ReaderView
      opened={opened}
      onOpenAgain={openAgain}
      onState={change}
      more={
        <>
          <PassOnPanel
            key={opened.licence}
            document={chosen}
            opened={opened}
            granted={granted}
            onPassedOn={setPassedOn}
          />
          <AskForm
            token={token}
            document={chosen}
            sender={opened.sender.name}
            requests={opened.requests}
            onRequests={setRequests}
            granted={granted}
          />
        </>
      }
      onLeave={() => void leave()}
      onBack={single === null ? back : null}
    />
  );
}
