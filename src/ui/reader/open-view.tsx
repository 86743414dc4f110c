'use client';

import { useCallback, useEffect, useState } from 'react';
import type { DocumentId } from '@/core/base/ids';
import type { OpenResult, OpenState, PassedOn } from '@/contracts/reader';
import type { OwnRequest } from '@/contracts/requests';
import { RIGHTS } from '@/core/policy/rights';
import { CallError, sentenceOf } from '@/ui/http/call';
import { AskForm } from '@/ui/reader/ask-form';
import { AcceptNotice } from '@/ui/reader/accept-notice';
import { Opening, Stuck } from '@/ui/reader/before-opening';
import { leave } from '@/ui/reader/leave';
import { PassOnPanel } from '@/ui/reader/pass-on-panel';
import { NeedsFile } from '@/ui/reader/needs-file';
import { usePickedFile } from '@/ui/reader/picked-file';
import { useOwnReading } from '@/ui/reader/use-own-reading';
import { ReaderView } from '@/ui/reader/reader-view';
import { RightsPanel } from '@/ui/reader/rights-panel';
import { UnsentComments } from '@/ui/reader/unsent-comments';
import { useAsking } from '@/ui/reader/use-asking';
import { Refusal } from '@/ui/reader/refusal';
import { readerCall } from '@/ui/reader/reader-call';
import { useWords } from '@/ui/words/use-words';

/** What an open is now, after something about it changed. */
function changed(opened: OpenResult | null, state: Partial<OpenState>): OpenResult | null {
  if (opened?.outcome === 'granted') return { ...opened, ...state };
  if (opened === null || state.requests === undefined) return opened;
  return { ...opened, requests: state.requests };
}

/** Opens a document, and again whenever the open before is over. */
function useOpen(token: string | null, chosen: DocumentId) {
  const [opened, setOpened] = useState<OpenResult | null>(null);
  const [problem, setProblem] = useState<unknown>(null);
  const [opens, setOpens] = useState(0);
  useEffect(() => {
    let current = true;
    readerCall<OpenResult>('POST', '/api/v1/reader/open', { token, document: chosen }).then(
      (result) => {
        if (current) setOpened(result);
      },
      (error: unknown) => {
        if (current) setProblem(error);
      },
    );
    return () => {
      current = false;
    };
  }, [chosen, token, opens]);
  return {
    opened,
    problem,
    turn: opens,
    openAgain: useCallback(() => {
      setProblem(null);
      setOpens((before) => before + 1);
    }, []),
    change: useCallback((state: Partial<OpenState>) => {
      setOpened((before) => changed(before, state));
    }, []),
  };
}

function isNoticeDue(problem: unknown): boolean {
  return problem instanceof CallError && problem.code === 'NOTICE_DUE';
}

type Props = {
  /** Of the link that led here; null: the list of what was sent. */
  readonly token: string | null;
  readonly document: DocumentId;
  /** Back to where it was chosen; null: there is nothing else. */
  readonly onBack: (() => void) | null;
  /** Something was asked or answered; told also when this is not on the screen any more. */
  readonly onAsked?: () => void;
};

/** One document: opened, or refused in words. */
export function OpenView({ token, document, onBack, onAsked }: Props) {
  const { opened, problem, turn, openAgain, change } = useOpen(token, document);
  const own = useOwnReading(opened, usePickedFile().picked, turn);
  const onLeave = () => void leave();
  if (isNoticeDue(problem)) return <AcceptNotice onAccepted={openAgain} onBack={onBack} />;
  if (problem !== null) return <Stuck words={sentenceOf(problem)} onLeave={onLeave} />;
  if (opened === null || own.kind === 'opening') return <Opening />;
  if (opened.outcome === 'granted' && opened.isLocal && own.kind !== 'open')
    return (
      <NeedsFile opened={opened} problem={own.kind === 'failed' ? own.why : null} onBack={onBack} />
    );
  const more = (
    <More token={token} document={document} opened={opened} change={change} onAsked={onAsked} />
  );
  return opened.outcome === 'refused' ? (
    <Refusal
      reason={opened.reason}
      at={opened.at}
      address={opened.address}
      sender={opened.sender}
      onLeave={onLeave}
      onBack={onBack}
      onAgain={openAgain}
      more={more}
    />
  ) : (
    <ReaderView
      opened={opened}
      own={own}
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
  onAsked,
}: {
  readonly token: string | null;
  readonly document: DocumentId;
  readonly opened: OpenResult;
  readonly change: (state: Partial<OpenState>) => void;
  readonly onAsked: (() => void) | undefined;
}) {
  const { say } = useWords();
  const setRequests = useCallback(
    (requests: readonly OwnRequest[]) => {
      change({ requests });
      onAsked?.();
    },
    [change, onAsked],
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
      <UnsentComments document={document} address={opened.address} />
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
        sender={opened.sender?.name ?? say('theSender')}
        requests={opened.requests}
        onRequests={setRequests}
        granted={granted ?? ['read']}
        asking={asking}
      />
    </>
  );
}
