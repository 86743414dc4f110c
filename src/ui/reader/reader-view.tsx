'use client';

import { useCallback, useMemo, useState, type ReactNode } from 'react';
import Link from 'next/link';
import Button from '@mui/material/Button';
import { AsideToggle } from '@/ui/pages/aside-toggle';
import type { OwnRevision } from '@/contracts/own-revision';
import type { OpenResult, OpenState } from '@/contracts/reader';
import type { RefusalReason } from '@/core/policy/decide';
import { RIGHTS } from '@/core/policy/rights';
import { sentenceOf } from '@/ui/http/call';
import { CommentsPanel, UnsavedComment } from '@/ui/comments/comments-panel';
import { PageComments } from '@/ui/comments/page-comments';
import { DocumentPages } from '@/ui/pages/document-pages';
import { PageSourceProvider, type TextFor } from '@/ui/pages/page-source';
import { LanguageChoice } from '@/ui/reader/language-choice';
import { openSource } from '@/ui/reader/open-source';
import { RefusedError, type OnRefused, type ReadingRefusal } from '@/ui/pages/refused';
import { readerFetch } from '@/ui/reader/reader-call';
import { Refusal } from '@/ui/reader/refusal';
import { NotShown } from '@/ui/reader/not-shown';
import { RevisePanel } from '@/ui/reader/revise-panel';
import { TextEditor, UnsentText } from '@/ui/reader/text-editor';
import { useTextEdit, type TextEdit } from '@/ui/reader/use-text-edit';
import { useComments } from '@/ui/reader/use-comments';
import { useCovered } from '@/ui/own-machine/use-covered';
import { OnThisMachine } from '@/ui/reader/on-this-machine';
import { OwnFailure } from '@/ui/own-machine/own-worker';
import { Taking, type Make, type Take } from '@/ui/reader/taking';
import { saveAnswer } from '@/ui/http/take-download';
import type { OwnState } from '@/ui/reader/use-own-reading';
import { useLive } from '@/ui/reader/use-live';
import { PAGES_KEYS } from '@/ui/pages/use-pages-keys';
import { Moment } from '@/ui/time/moment';
import { distanceIn } from '@/core/base/moment-in';
import { useWords } from '@/ui/words/use-words';
import { verbsIn } from '@/words/reader/verbs-in';
import { en } from '@/words/reader/en';

type Opened = OpenResult & { readonly outcome: 'granted' };

function isRefusal(reason: Exclude<ReadingRefusal, 'open-again'>): reason is RefusalReason {
  return reason in en.reasons;
}

type Ended = { readonly reason: RefusalReason; readonly at: number | null };

type Props = {
  readonly opened: Opened;
  /** How it is read on this machine, where a file of it was picked. */
  readonly own: OwnState;
  /** This open is over, and nothing was refused: another one takes its place. */
  readonly onOpenAgain: () => void;
  /** What it may do is another now. */
  readonly onState: (state: OpenState) => void;
  readonly more: ReactNode;
  readonly onLeave: () => void;
  readonly onBack: (() => void) | null;
};

/** Whether an open goes on, and what is said about it meanwhile. */
function useReading({ opened, onOpenAgain, onState }: Props) {
  const { say } = useWords();
  const [ended, setEnded] = useState<Ended | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  const onRefused = useCallback<OnRefused>(
    (reason, at) => {
      if (reason === 'open-again') onOpenAgain();
      else if (isRefusal(reason)) setEnded({ reason, at });
      else setMessage(say(`withheld.now.${reason}`));
    },
    [onOpenAgain, say],
  );
  // What had ended and was given again is read on, in this very open.
  const onGoesOn = useCallback(
    (state: OpenState) => {
      setEnded(null);
      onState(state);
    },
    [onState],
  );
  useLive(opened.licence, opened, onRefused, onGoesOn);
  const make: Make = async (copy) => {
    setMessage(say('take.being'));
    try {
      setMessage(await copy());
    } catch (error) {
      setMessage(null);
      if (error instanceof RefusedError) onRefused(error.reason, error.at);
      else if (error instanceof OwnFailure) setMessage(say('take.failedHere'));
      else setMessage(sentenceOf(error));
    }
  };
  const take: Take = (path, body, done) =>
    make(async () => {
      const answer = await readerFetch('POST', path, body, null);
      const file = await saveAnswer(answer);
      return done(answer.headers.get('x-marked') === 'yes', file);
    });
  const openAgain = () => {
    setEnded(null);
    onOpenAgain();
  };
  return { ended, message, onRefused, make, take, openAgain };
}

/** The page where a recipient reads. It goes blank, and says why, the moment access ends. */
export function ReaderView(props: Props) {
  const { opened, own, more, onLeave, onBack } = props;
  const { say } = useWords();
  const { ended, message, onRefused, make, take, openAgain } = useReading(props);
  const [isAsideOpen, setAsideOpen] = useState(false);
  const covered = useCovered(opened.captureDeterrent);
  const comments = useComments(opened.licence, opened.rights.comment.granted, onRefused);
  const { revisions, onSent } = useRevisions(opened);
  const edit = useTextEdit(opened, onRefused, onSent);
  const hosted = useMemo(() => openSource(opened.licence), [opened.licence]);
  const source = own.kind === 'open' ? own.reading.source : hosted;
  // What is said about pages has no place where there are none.
  const isShown = edit.text === null && opened.pages > 0;
  if (ended !== null)
    return (
      <Refusal
        reason={ended.reason}
        at={ended.at}
        address={opened.address}
        sender={opened.sender}
        onLeave={onLeave}
        onBack={onBack}
        onAgain={openAgain}
        more={
          <>
            <UnsavedComment comments={comments} />
            <UnsentText edit={edit} />
            {more}
          </>
        }
      />
    );
  return (
    <PageSourceProvider value={source}>
      <div className="reader">
        <header>
          <Heading opened={opened} />
          <AsideToggle isOpen={isAsideOpen} onToggle={setAsideOpen} />
          {onBack !== null && <Button onClick={onBack}>{say('refusal.back')}</Button>}
        </header>
        {covered && <Covered sender={opened.sender.name} />}
        <Shown
          opened={opened}
          edit={edit}
          isCovered={covered}
          onRefused={onRefused}
          over={(page) => <PageComments page={page} comments={comments} />}
          aside={
            <aside aria-label={say('reading.mayDo')} data-open={isAsideOpen}>
              <div className="stack">
                {message !== null && (
                  <p role="status" className="notice">
                    {message}
                  </p>
                )}
                <OnThisMachine own={own} />
                {opened.readingAids && (
                  <p className="notice">{say('reading.aids', { sender: opened.sender.name })}</p>
                )}
                {opened.captureDeterrent && <Announced sender={opened.sender.name} />}
                {isShown && (
                  <CommentsPanel
                    comments={comments}
                    sees={say('comments.sees', { sender: opened.sender.name })}
                  />
                )}
                {edit.text === null && <Taking opened={opened} own={own} take={take} make={make} />}
                <RevisePanel
                  licence={opened.licence}
                  may={opened.rights.revise.granted}
                  sender={opened.sender.name}
                  revisions={revisions}
                  onSent={onSent}
                  edit={edit}
                  onRefused={onRefused}
                />
                {more}
                <hr />
                <About opened={opened} onLeave={onLeave} onBack={onBack} />
              </div>
            </aside>
          }
        />
        <NotOnPaper print={opened.rights.print.granted} />
      </div>
    </PageSourceProvider>
  );
}

/** Changed files as they are known: what an answer brought, until the next state says as much. */
function useRevisions({ revisions }: Opened) {
  const [sent, onSent] = useState<readonly OwnRevision[] | null>(null);
  return {
    revisions: sent === null || sent.length < revisions.length ? revisions : sent,
    onSent,
  };
}

/** The pages of a document; in their place its text where it is changed, or why there are none. */
function Shown({
  opened,
  edit,
  isCovered,
  onRefused,
  over,
  aside,
}: {
  readonly opened: Opened;
  readonly edit: TextEdit;
  readonly isCovered: boolean;
  readonly onRefused: OnRefused;
  readonly over: (page: number) => ReactNode;
  readonly aside: ReactNode;
}) {
  if (edit.text !== null || opened.pages === 0)
    return (
      <div className="body whole">
        {edit.text === null ? (
          <NotShown {...opened} />
        ) : (
          <TextEditor edit={edit} sender={opened.sender.name} />
        )}
        {aside}
      </div>
    );
  return (
    <DocumentPages
      pages={opened.pages}
      text={textFor(opened)}
      keptAs={opened.kept ? opened.document : null}
      isCovered={isCovered}
      onRefused={onRefused}
      over={over}
      aside={aside}
    />
  );
}

function textFor({ rights, readingAids }: Opened): TextFor {
  if (rights.copy.granted) return 'copying';
  return readingAids ? 'aids' : 'nothing';
}

/** Said before it happens: covering pages without a word would look like a fault. */
function Announced({ sender }: { readonly sender: string }) {
  const { say } = useWords();
  return <p className="notice">{say('reading.announced', { sender })}</p>;
}

function Covered({ sender }: { readonly sender: string }) {
  const { say } = useWords();
  return (
    <p role="status" className="notice covered">
      {say('reading.covered', { sender })}
    </p>
  );
}

/** What a browser prints of this page: never the pages themselves. */
function NotOnPaper({ print }: { readonly print: boolean }) {
  const { say } = useWords();
  return (
    <p className="on-paper-only">
      {print ? say('reading.notForPaper') : say('reading.notToPrint')}
    </p>
  );
}

/** What is recorded, whom to write to, and how to leave. */
function About({ opened, onLeave, onBack }: Pick<Props, 'opened' | 'onLeave' | 'onBack'>) {
  const { say } = useWords();
  const { sender, title, reference } = opened;
  const subject = say('refusal.mailAbout', { title, reference });
  return (
    <>
      <h2>{say('recorded.heading')}</h2>
      <p className="quiet">{say('recorded.you')}</p>
      <hr />
      <details>
        <summary>{say('reading.keys')}</summary>
        <dl className="keys small">
          {PAGES_KEYS.map(([key, does]) => (
            <div key={key}>
              <dt className="figure">{key}</dt>
              <dd>{say(`pages.keys.${does}`)}</dd>
            </div>
          ))}
        </dl>
      </details>
      <hr />
      <Button component="a" href={`mailto:${sender.email}?subject=${encodeURIComponent(subject)}`}>
        {say('refusal.writeTo', { name: sender.name })}
      </Button>
      {onBack === null && (
        <Button component={Link} href="/r/sent" prefetch={false}>
          {say('prove.everything')}
        </Button>
      )}
      <Button onClick={onLeave}>{say('sent.signOut')}</Button>
      <LanguageChoice />
    </>
  );
}

/** What it is, from whom, and what one may do with it until when. */
function Heading({ opened }: { readonly opened: Opened }) {
  const { title, reference, sender, address, until, rights } = opened;
  const { language, say } = useWords();
  const granted = RIGHTS.filter((right) => rights[right].granted);
  const verbs = verbsIn(language, say, granted);
  return (
    <>
      <div>
        <h1>{title}</h1> <span className="figure quiet">{reference}</span>
        <div className="quiet small">
          {say('reading.from', {
            sender: sender.name,
            organisation: sender.organisation,
            address,
          })}
        </div>
      </div>
      <span className="gap" />
      <div className="small">
        {until === null
          ? say('rights.may', { verbs })
          : say.rich('rights.mayUntilIn', {
              verbs,
              distance: distanceIn(until, opened.openedAt, language),
              end: () => (
                <b>
                  <Moment at={until} named />
                </b>
              ),
            })}
      </div>
    </>
  );
}
