'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import type { CommentView } from '@/contracts/comments';
import { MAX_COMMENT } from '@/core/comments/comment';
import type { CommentId } from '@/core/base/ids';
import { Moment } from '@/ui/time/moment';
import { useWords } from '@/ui/words/use-words';

type Change =
  { readonly text: string } | { readonly resolved: boolean } | { readonly removed: true };
type Props = {
  readonly number: number;
  readonly first: CommentView;
  readonly answers: readonly CommentView[];
  readonly isActive: boolean;
  readonly onPick: (() => void) | null;
  /** Null: nobody may answer here. */
  readonly onAnswer: ((text: string) => Promise<boolean>) | null;
  readonly onChange: ((id: CommentId, change: Change) => Promise<boolean>) | null;
  readonly mayResolve: boolean;
};

/** A remark with what was answered. */
export function CommentThread(props: Props) {
  const { number, first, answers, isActive, onPick, onAnswer, onChange, mayResolve } = props;
  const isResolved = first.resolvedAt !== null;
  const { say } = useWords();
  return (
    <article
      className={isActive ? 'comment-thread current' : 'comment-thread'}
      aria-label={say('comments.numbered', { number: String(number) })}
    >
      <div className="row tight-row">
        <span className="comment-mark still">{number}</span>
        {onPick === null ? (
          <span>{say('pages.page', { page: String(first.page) })}</span>
        ) : (
          <button type="button" className="plain-link" onClick={onPick}>
            {say('pages.page', { page: String(first.page) })}
          </button>
        )}
        {isResolved && <span className="quiet small">{say('comments.resolved')}</span>}
        <span className="gap" />
        {mayResolve && onChange !== null && (
          <Button
            size="small"
            variant="text"
            onClick={() => void onChange(first.id, { resolved: !isResolved })}
          >
            {isResolved ? say('comments.reopen') : say('comments.resolve')}
          </Button>
        )}
      </div>
      {[first, ...answers].map((each) => (
        <Remark key={each.id} comment={each} onChange={onChange} />
      ))}
      {onAnswer !== null && !isResolved && <Answer onAnswer={onAnswer} />}
    </article>
  );
}

function Remark({
  comment,
  onChange,
}: { readonly comment: CommentView } & Pick<Props, 'onChange'>) {
  const { id, by, byStaff, own, text, madeAt, changedAt } = comment;
  const { say } = useWords();
  const other = byStaff ? say('comments.whoSent', { name: by }) : by;
  return (
    <div>
      <div className="quiet small">
        {own ? say('comments.you') : other} · <Moment at={changedAt ?? madeAt} />
        {changedAt !== null && ` · ${say('comments.changed')}`}
        {own && onChange !== null && (
          <>
            {' '}
            <button
              type="button"
              className="plain-link"
              onClick={() => void onChange(id, { removed: true })}
            >
              {say('comments.remove')}
            </button>
          </>
        )}
      </div>
      <p className="said">{text ?? <span className="quiet">{say('comments.unreadable')}</span>}</p>
    </div>
  );
}

function Answer({ onAnswer }: { readonly onAnswer: NonNullable<Props['onAnswer']> }) {
  const { say } = useWords();
  const [text, setText] = useState<string | null>(null);
  if (text === null)
    return (
      <div>
        <Button
          size="small"
          onClick={() => {
            setText('');
          }}
        >
          {say('comments.answer')}
        </Button>
      </div>
    );
  return (
    <form
      className="stack tight"
      onSubmit={(event) => {
        event.preventDefault();
        void onAnswer(text).then((well) => {
          if (well) setText(null);
        });
      }}
    >
      <TextField
        label={say('comments.answer')}
        multiline
        autoFocus
        value={text}
        slotProps={{ htmlInput: { maxLength: MAX_COMMENT } }}
        onChange={({ target }) => {
          setText(target.value);
        }}
      />
      <div className="row">
        <Button type="submit" variant="contained" size="small" disabled={text.trim() === ''}>
          {say('comments.saveAnswer')}
        </Button>
        <Button
          variant="text"
          size="small"
          onClick={() => {
            setText(null);
          }}
        >
          {say('cancel')}
        </Button>
      </div>
    </form>
  );
}
