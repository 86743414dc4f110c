import { describe, expect, test } from 'vitest';
import { setPrints, setRight, takeColumn } from '@/core/compose/columns';
import { withNeeds } from '@/core/policy/rights';
import { commit, historyOf, redo, undo } from '@/core/compose/history';
import { sameTerms } from '@/core/compose/sets';
import {
  addRows,
  changeTerms,
  dropOwn,
  EMPTY_SHEET,
  giveDocument,
  pickDocument,
  putTerms,
  removeRows,
  rowOf,
  termsOfRow,
  type Sheet,
} from '@/core/compose/sheet';
import type { Terms } from '@/core/policy/rights';

const common: Terms = { rights: ['read'], from: null, until: 9, prints: null };
const [mira, jonas] = [rowOf('mira@yard.example', 'person'), rowOf('jonas@yard.example', 'person')];
const sheet: Sheet = { ...EMPTY_SHEET, documents: ['doc_a', 'doc_b'], rows: [mira, jonas] };
const only = (key: string) => new Set([key]);

describe('a sheet', () => {
  test('has each addressee once, and whoever is there stays as they are', () => {
    const set = changeTerms(sheet, common, only(mira.key), (terms) => ({ ...terms, until: 5 }));
    const more = addRows(set, [mira, rowOf('new@yard.example', 'person'), rowOf('link', 'link')]);
    expect(more.rows.map(({ key }) => key)).toEqual([
      'mira@yard.example',
      'jonas@yard.example',
      'new@yard.example',
      'link',
    ]);
    expect(more.rows[0]?.own).toEqual({ until: 5 });
    expect(addRows(more, [mira])).toBe(more);
  });

  test('changes one row and leaves the others the very same', () => {
    const after = changeTerms(sheet, common, only(mira.key), (terms) => ({
      ...terms,
      rights: [...terms.rights, 'print'],
    }));
    expect(termsOfRow(after.rows[0] ?? mira, common).rights).toEqual(['read', 'print']);
    expect(after.rows[1]).toBe(jonas);
    expect(dropOwn(after, only(mira.key)).rows[0]).toMatchObject({ own: {}, without: [] });
  });

  test('keeps saved terms of a row whatever becomes common, until one of them is changed', () => {
    const saved = { id: 'trm_look' as const, terms: { ...common, until: 5 } };
    const put = putTerms(sheet, only(mira.key), saved);
    expect(put.rows[0]?.saved).toBe('trm_look');
    const later: Terms = { rights: ['read', 'copy'], from: null, until: 7, prints: null };
    expect(termsOfRow(put.rows[0] ?? mira, later)).toEqual(saved.terms);
    const changed = changeTerms(put, common, only(mira.key), (terms) => ({ ...terms, until: 6 }));
    expect(changed.rows[0]?.saved).toBeNull();
  });

  test('forgets about a document that is gone, also for those who were not given it', () => {
    const apart = giveDocument(sheet, only(mira.key), 'doc_b', false);
    expect(apart.rows[0]?.without).toEqual(['doc_b']);
    const gone = pickDocument(apart, 'doc_b', false);
    expect(gone.documents).toEqual(['doc_a']);
    expect(pickDocument(gone, 'doc_b', true).rows[0]?.without).toEqual([]);
    expect(giveDocument(apart, only(mira.key), 'doc_b', true).rows[0]?.without).toEqual([]);
  });

  test('tells those apart who get something else', () => {
    const rows = [
      mira,
      jonas,
      { ...rowOf('x@yard.example', 'person'), without: ['doc_b' as const] },
    ];
    const sets = sameTerms(rows.map((row) => ({ row, terms: termsOfRow(row, common) })));
    expect(sets.map((set) => set.rows.length)).toEqual([2, 1]);
  });
});

describe('a column', () => {
  test('switches a right off with what needs it, and on without a word', () => {
    const all: Terms = { ...common, rights: ['read', 'copy', 'print', 'keep'] };
    expect(setRight(all, 'copy', false)).toEqual({
      terms: { ...all, rights: ['read', 'print'] },
      fell: [{ right: 'keep', needs: 'copy' }],
    });
    expect(setRight(common, 'keep', true)).toEqual({
      terms: { ...common, rights: ['read', 'keep'] },
      fell: [],
    });
    expect(setPrints(all, 2).fell).toEqual([{ right: 'keep', needs: 'unlimited-print' }]);
  });

  test('is what keep needs, where that is asked for', () => {
    expect(withNeeds({ ...common, rights: ['read', 'print', 'keep'], prints: 3 })).toEqual({
      ...common,
      rights: ['read', 'copy', 'print', 'keep'],
      prints: null,
    });
  });

  test('takes over what another row has in it, and nothing else', () => {
    const from: Terms = {
      rights: ['read', 'print'],
      from: 2,
      until: 4,
      prints: 3,
      conditions: { opens: 5, countries: ['NO'] },
    };
    expect(takeColumn(common, 'print', from)).toEqual({
      ...common,
      rights: ['read', 'print'],
      prints: 3,
    });
    expect(takeColumn(common, 'ends', from)).toEqual({ ...common, from: 2, until: 4 });
    expect(takeColumn(common, 'opens', from)).toEqual({ ...common, conditions: { opens: 5 } });
    expect(takeColumn(common, 'conditions', from).conditions).toEqual({ countries: ['NO'] });
    expect(takeColumn(from, 'conditions', common).conditions).toEqual({ opens: 5 });
  });
});

describe('steps', () => {
  test('are undone and done again, and a new one forgets what was undone', () => {
    const three = [1, 2, 3].reduce((history, n) => commit(history, n), historyOf(0));
    const back = undo(undo(three));
    expect(back.present).toBe(1);
    expect(redo(back).present).toBe(2);
    expect(redo(commit(back, 9)).present).toBe(9);
    expect(undo(historyOf(0)).present).toBe(0);
    expect(commit(three, 3)).toBe(three);
  });

  test('bring back a row that was removed, with all that was set for it', () => {
    const set = changeTerms(sheet, common, only(mira.key), (terms) => ({ ...terms, until: 5 }));
    const history = commit(historyOf(set), removeRows(set, only(mira.key)));
    expect(history.present.rows).toHaveLength(1);
    expect(undo(history).present.rows[0]?.own).toEqual({ until: 5 });
  });
});
