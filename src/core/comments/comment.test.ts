import { fc, test as prop } from '@fast-check/vitest';
import { describe, expect, test } from 'vitest';
import { boxesOf, seenByRecipient, type CommentFacts } from '@/core/comments/comment';

const by = (id: string, maker: string, answers: string | null = null): CommentFacts => ({
  id,
  answers,
  maker: maker.startsWith('rcp') ? { kind: 'recipient', id: maker } : { kind: 'staff', id: maker },
});
const all = [
  by('cmt_1', 'rcp_mira'),
  by('cmt_2', 'stf_ida', 'cmt_1'),
  by('cmt_3', 'rcp_per'),
  by('cmt_4', 'stf_ida', 'cmt_3'),
  by('cmt_5', 'stf_ida'),
];
const seen = (recipient: string, seenBy: 'makers' | 'everybody') =>
  seenByRecipient(all, recipient, seenBy).map(({ id }) => id);

describe('what a recipient sees of comments', () => {
  test('are their own threads, with what was answered', () => {
    expect(seen('rcp_mira', 'makers')).toEqual(['cmt_1', 'cmt_2']);
    expect(seen('rcp_per', 'makers')).toEqual(['cmt_3', 'cmt_4']);
    expect(seen('rcp_other', 'makers')).toEqual([]);
  });

  test('are all of them where the owner chose so', () => {
    expect(seen('rcp_mira', 'everybody')).toHaveLength(5);
  });

  prop.prop([fc.array(fc.tuple(fc.nat(5), fc.option(fc.nat(5), { nil: null })))])(
    'is never a thread that somebody else began',
    (drawn) => {
      const comments = drawn.map(([maker, answers], i) =>
        by(
          `cmt_${String(i)}`,
          `rcp_${String(maker)}`,
          answers === null ? null : `cmt_${String(answers)}`,
        ),
      );
      for (const each of seenByRecipient(comments, 'rcp_0', 'makers')) {
        const thread = comments.find(({ id }) => id === (each.answers ?? each.id));
        expect(each.maker.id === 'rcp_0' || thread?.maker.id === 'rcp_0').toBe(true);
      }
    },
  );
});

test('a place takes up its boxes', () => {
  const box = { left: 1, top: 2, width: 3, height: 4 };
  expect(boxesOf({ kind: 'point', left: 1, top: 2 })).toEqual([]);
  expect(boxesOf({ kind: 'area', box })).toEqual([box]);
  expect(boxesOf({ kind: 'text', boxes: [box, box] })).toHaveLength(2);
});
