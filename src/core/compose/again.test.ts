import { describe, expect, test } from 'vitest';
import { DAY } from '@/core/base/time';
import { sheetAgain, type SentGrant } from '@/core/compose/again';
import { termsOfRow } from '@/core/compose/sheet';

const THEN = 1_800_000_000_000;
const NOW = THEN + 90 * DAY;
const grant = (address: string, over: Partial<SentGrant> = {}): SentGrant => ({
  kind: 'person',
  address,
  name: '',
  documentId: 'doc_a',
  terms: { rights: ['read'], from: null, until: THEN + 30 * DAY, prints: null },
  givenAt: THEN,
  ...over,
});
const printing = { rights: ['read', 'print'] as const, from: THEN + DAY, until: null, prints: 2 };
const sent = [
  grant('mira@yard.example'),
  grant('mira@yard.example', { documentId: 'doc_b' }),
  grant('jonas@yard.example'),
  grant('jonas@yard.example', { documentId: 'doc_b' }),
  grant('rana@class.example', { terms: printing }),
  grant('@port.example', { kind: 'domain' }),
  grant('@port.example', { kind: 'domain', documentId: 'doc_b' }),
  grant('group:grp_00000000000000000001', { kind: 'group', name: 'Yards' }),
  grant('link:dsp_x', { kind: 'link' }),
  grant('visitor:x', { kind: 'visitor' }),
];

describe('the same again', () => {
  test('is for the same, each as long as before from now on, with what each had', () => {
    const { documents, rows, common } = sheetAgain(sent, 'all', NOW);
    expect(documents).toEqual(['doc_a', 'doc_b']);
    expect(common).toEqual({ rights: ['read'], from: null, until: NOW + 30 * DAY, prints: null });
    expect(rows.map(({ key, kind, without }) => [key, kind, without])).toEqual([
      ['mira@yard.example', 'person', []],
      ['jonas@yard.example', 'person', []],
      ['rana@class.example', 'person', ['doc_b']],
      ['@port.example', 'domain', []],
      ['grp_00000000000000000001', 'group', ['doc_b']],
      ['link', 'link', ['doc_b']],
    ]);
    const [mira, , rana] = rows;
    if (mira === undefined || rana === undefined || common === null) throw new Error('none');
    expect(mira.own).toEqual({});
    expect(termsOfRow(rana, common)).toEqual({ ...printing, from: null });
  });

  test('is only its people, on whatever the new documents begin with', () => {
    const { documents, rows, common } = sheetAgain(sent, 'people', NOW);
    expect([documents, common]).toEqual([[], null]);
    expect(rows.every(({ own, without }) => Object.keys(own).length + without.length === 0)).toBe(
      true,
    );
    expect(rows).toHaveLength(6);
  });

  test('is only its terms, for nobody yet', () => {
    expect(sheetAgain(sent, 'terms', NOW)).toMatchObject({
      documents: [],
      rows: [],
      common: { rights: ['read'] },
    });
  });

  test('is nothing where nothing was given', () => {
    expect(sheetAgain([], 'all', NOW)).toMatchObject({ documents: [], rows: [], common: null });
  });
});
