'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import type { CommentView } from '@/contracts/comments';
import { MAX_COMMENT } from '@/core/comments/comment';
import { CommentThread } from '@/ui/comments/comment-thread';
import type { Comments } from '@/ui/comments/comments-state';
import { useGoToPage } from '@/ui/pages/go-to-page';
import { Problem } from '@/ui/shell/notice';
import { useWords } from '@/ui/words/use-words';

/** The remarks on a document, and the one that is being written. */
export function CommentsPanel({
  comments,
  sees,
}: {
  readonly comments: Comments;
  /** Who sees what is written. */
  readonly sees: string;
}) {
  const { say } = useWords();
  const goTo = useGoToPage();
  const { may, threads, isPlacing, setPlacing, draft, problem, answer } = comments;
  const [showsResolved, setShowsResolved] = useState(false);
  const resolved = threads.filter(({ first }) => first.resolvedAt !== null);
  const shown = showsResolved ? threads : threads.filter(({ first }) => first.resolvedAt === null);
  if (!may && threads.length === 0) return null;
  const pick = (first: CommentView) => {
    comments.setActive(first.id);
    goTo(first.page);
  };
  return (
    <section className="stack" aria-label={say('comments.heading')}>
      <h2>{say('comments.heading')}</h2>
      {may && draft === null && (
        <Button
          aria-pressed={isPlacing}
          onClick={() => {
            setPlacing(!isPlacing);
          }}
        >
          {isPlacing ? say('comments.placing') : say('comments.place')}
        </Button>
      )}
      {draft !== null && <Draft comments={comments} sees={sees} />}
      <Problem words={problem} />
      {shown.map(({ first, answers }) => (
        <CommentThread
          key={first.id}
          number={threads.findIndex((each) => each.first.id === first.id) + 1}
          first={first}
          answers={answers}
          isActive={comments.active === first.id}
          onPick={() => {
            pick(first);
          }}
          onAnswer={may && answer !== null ? (text) => answer(first, text) : null}
          onChange={may ? comments.change : null}
          mayResolve={first.own && answer !== null}
        />
      ))}
      {resolved.length > 0 && (
        <Button
          variant="text"
          onClick={() => {
            setShowsResolved(!showsResolved);
          }}
        >
          {showsResolved
            ? say('comments.hideResolved')
            : say('comments.showResolved', { count: String(resolved.length) })}
        </Button>
      )}
    </section>
  );
}

function Draft({ comments, sees }: { readonly comments: Comments; readonly sees: string }) {
  const { say } = useWords();
  const { draft, setDraft, save, busy } = comments;
  if (draft === null) return null;
  return (
    <form
      className="stack"
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <TextField
        label={say('comments.onPage', { page: String(draft.page) })}
        multiline
        minRows={3}
        autoFocus
        value={draft.text}
        helperText={sees}
        slotProps={{ htmlInput: { maxLength: MAX_COMMENT } }}
        onChange={({ target }) => {
          setDraft({ ...draft, text: target.value });
        }}
      />
      <div className="row">
        <Button type="submit" variant="contained" disabled={busy || draft.text.trim() === ''}>
          {say('comments.save')}
        </Button>
        <Button
          variant="text"
          onClick={() => {
            setDraft(null);
          }}
        >
          {say('comments.discard')}
        </Button>
      </div>
    </form>
  );
}

/** What was being written when access ended: it is not lost. */
export function UnsavedComment({ comments }: { readonly comments: Comments }) {
  const { say } = useWords();
  const { draft } = comments;
  if (draft === null || draft.text.trim() === '') return null;
  return (
    <TextField
      label={say('comments.unsaved', { page: String(draft.page) })}
      multiline
      value={draft.text}
      helperText={say('comments.unsavedHint')}
      slotProps={{ htmlInput: { readOnly: true } }}
    />
  );
}
