import { describe, expect, it } from 'vitest';
import type { CeilingRow } from '@/contracts/ceiling';
import type { DocumentRow } from '@/contracts/document';
import { DAY } from '@/core/base/time';
import { NO_LIMITS, type Limits } from '@/core/policy/ceiling';
import { ceilingWarnings } from '@/ui/compose/ceiling-warnings';

const NOW = 1_800_000_000_000;
const paper = (title: string, folderId: `fld_${string}` | null): DocumentRow =>
  ({
    id: `doc_${title}`,
    reference: title,
    title,
    pages: 1,
    bytes: 1,
    ownerId: 'stf_a',
    ownerName: '',
    folderId,
    marking: null,
    markingId: null,
    version: 1,
    protectedAt: 0,
    revoked: false,
    people: 0,
  }) as unknown as DocumentRow;
const ceiling = (limits: Partial<Limits>, over: Partial<CeilingRow> = {}): CeilingRow => ({
  level: 'folder',
  subject: 'fld_hull',
  name: 'Hull 412',
  setBy: 'Ida Roe',
  setAt: 0,
  limits: { ...NO_LIMITS, ...limits },
  ...over,
});
const terms = {
  rights: ['read', 'print', 'keep'] as const,
  from: null,
  until: NOW + 30 * DAY,
  prints: null,
};
const warn = (documents: readonly DocumentRow[], rows: readonly CeilingRow[]) =>
  ceilingWarnings(
    documents,
    terms,
    NOW,
    {
      rows,
      parents: new Map<string, string | null>([
        ['fld_hull', null],
        ['fld_tender', 'fld_hull'],
      ]),
    },
    (moment) => `day ${String((moment - NOW) / DAY)}`,
  );

describe('what ceilings take from a dispatch', () => {
  it('is said with who set it, for the documents below it alone', () => {
    expect(
      warn(
        [paper('Lines', 'fld_tender'), paper('Brochure', null)],
        [ceiling({ rights: ['read', 'print'] })],
      ),
    ).toEqual([
      '“Lines”: nobody may keep, by the ceiling of the folder Hull 412, which Ida Roe set.',
    ]);
  });

  it('is said once for several documents', () => {
    const four = ['A', 'B', 'C', 'D'].map((title) => paper(title, 'fld_hull'));
    expect(warn(four, [ceiling({ days: 7, prints: 2 })])).toEqual([
      '4 of the documents: access ends on day 7, by the ceiling of the folder Hull 412, which Ida Roe set.',
      '4 of the documents: 2 prints each at most, by the ceiling of the folder Hull 412, which Ida Roe set.',
    ]);
  });

  it('is nothing where the terms are stricter already', () => {
    expect(
      warn(
        [paper('Lines', 'fld_hull')],
        [
          ceiling({ days: 40 }),
          ceiling(
            { rights: ['read', 'copy', 'print', 'keep'] },
            { level: 'organisation', subject: '' },
          ),
        ],
      ),
    ).toEqual([]);
  });
});
