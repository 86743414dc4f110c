'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import type { CommentView, DocumentComments as Found } from '@/contracts/comments';
import type { CommentId, DocumentId } from '@/core/base/ids';
import { COMMENTS_SEEN_BY, type CommentsSeenBy } from '@/core/comments/comment';
import { CommentThread } from '@/ui/comments/comment-thread';
import { api } from '@/ui/http/api';
import { sentenceOf } from '@/ui/http/call';
import { useAsked } from '@/ui/http/use-asked';
import { Empty } from '@/ui/shell/empty';
import { Problem } from '@/ui/shell/notice';

const seenByWords: Readonly<Record<CommentsSeenBy, string>> = {
  makers: 'who made them, and the staff',
  everybody: 'everybody who has access',
};

type Order = 'page' | 'person';

/** All comments of a document together, for who answers for it: by page, or by person. */
export function DocumentCommentsView({ id }: { readonly id: DocumentId }) {
  const { answer, problem } = useAsked('GET /api/v1/documents/:id/comments', { id });
  const [changed, setChanged] = useState<Found | null>(null);
  const [failed, setFailed] = useState<string | null>(null);
  const [order, setOrder] = useState<Order>('page');
  const found = changed ?? answer;
  const act = async (call: () => Promise<Found>): Promise<boolean> => {
    setFailed(null);
    try {
      setChanged(await call());
      return true;
    } catch (error) {
      setFailed(sentenceOf(error));
      return false;
    }
  };
  if (found === null) return problem === null ? <p>Looking…</p> : <Problem words={problem} />;
  const threads = threadsOf(found.comments);
  return (
    <div className="stack loose part">
      <div className="row">
        <TextField
          select
          label="Ordered by"
          value={order}
          onChange={({ target }) => {
            setOrder(target.value as Order);
          }}
        >
          <MenuItem value="page">page</MenuItem>
          <MenuItem value="person">person</MenuItem>
        </TextField>
        <TextField
          select
          label="Comments are seen by"
          value={found.seenBy}
          onChange={({ target }) =>
            void act(() =>
              api('POST /api/v1/documents/:id/seen-by', {
                id,
                seenBy: target.value as CommentsSeenBy,
              }),
            )
          }
        >
          {COMMENTS_SEEN_BY.map((each) => (
            <MenuItem key={each} value={each}>
              {seenByWords[each]}
            </MenuItem>
          ))}
        </TextField>
        <span className="gap" />
        {threads.length > 0 && (
          <>
            <Button component="a" href={`/api/v1/documents/${id}/comments/export?as=pdf`}>
              Save as PDF
            </Button>
            <Button component="a" href={`/api/v1/documents/${id}/comments/export?as=json`}>
              Save as JSON
            </Button>
          </>
        )}
      </div>
      <Problem words={failed} />
      {threads.length === 0 && (
        <Empty title="Nobody has commented on this document">
          Give somebody the right to comment, and their remarks come here.
        </Empty>
      )}
      {groupsOf(threads, order).map(({ name, of }) => (
        <section key={name} aria-label={name} className="stack">
          <h2>{name}</h2>
          {of.map((first) => (
            <CommentThread
              key={first.id}
              number={threads.indexOf(first) + 1}
              first={first}
              answers={found.comments.filter(({ answers }) => answers === first.id)}
              isActive={false}
              onPick={null}
              onAnswer={(text) =>
                act(() =>
                  api('POST /api/v1/documents/:id/comments', { id, answers: first.id, text }),
                )
              }
              onChange={(comment: CommentId, change) =>
                act(() => api('POST /api/v1/comments/:comment', { id, comment, change }))
              }
              mayResolve
            />
          ))}
        </section>
      ))}
    </div>
  );
}

function threadsOf(comments: readonly CommentView[]): CommentView[] {
  return comments.filter(({ answers }) => answers === null);
}

function groupsOf(
  threads: readonly CommentView[],
  order: Order,
): readonly { readonly name: string; readonly of: readonly CommentView[] }[] {
  const nameOf = ({ page, by }: CommentView) => (order === 'page' ? `Page ${String(page)}` : by);
  return [...new Set(threads.map(nameOf))].map((name) => ({
    name,
    of: threads.filter((thread) => nameOf(thread) === name),
  }));
}
