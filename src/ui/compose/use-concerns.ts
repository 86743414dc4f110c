'use client';

import { useMemo, useState } from 'react';
import type { DocumentRow } from '@/contracts/document';
import type { ComposeStart } from '@/contracts/draft';
import type { DocumentId } from '@/core/base/ids';
import { concernsOf, isDoubt, type Concern } from '@/core/compose/concerns';
import type { Waved } from '@/core/compose/draft';
import { titlesInMail } from '@/core/compose/hidden-titles';
import { markedLower } from '@/core/compose/marked-lower';
import { mended, type Mend } from '@/core/compose/mend';
import type { Sheet } from '@/core/compose/sheet';
import { reaching, type Parents } from '@/core/policy/levels';
import { CAUTIOUS_TERMS, endAfter } from '@/core/policy/saved-terms';
import type { Terms } from '@/core/policy/rights';
import type { Known } from '@/ui/recipients/use-facts';
import type { WorkedSheet } from '@/ui/recipients/use-sheet';

type Composing = {
  readonly begun: readonly Waved[];
  readonly work: WorkedSheet;
  readonly common: Terms;
  readonly documents: readonly DocumentRow[];
  readonly parents: Parents;
  readonly facts: (key: string) => Known | undefined;
  readonly isClear: boolean;
  readonly mailed: boolean;
  /** Whether protected files are attached or handed out from here. */
  readonly carriesFile: boolean;
  /** What stands in the mail. */
  readonly message: { readonly subject: string; readonly note: string };
};

/** Concerns that are about terms, which what leaves in the clear has none of. */
const ABOUT_TERMS = new Set<Concern['code']>([
  'opens-nothing',
  'keep-needs',
  'needs-own-machine',
  'end-past',
  'end-before-start',
  'no-end',
  'passes-to-nobody',
  'not-yet',
  'only-kept',
]);

export type Looked = {
  /** What stops it, and what is asked about and not answered yet. */
  readonly concerns: readonly Concern[];
  readonly concernOf: (key: string) => 'stops' | 'asks' | null;
  readonly mend: (mend: Mend) => void;
  readonly wave: (concern: Concern) => void;
  readonly waved: readonly Waved[];
};

/** What has to be looked at before it is sent, what mends each, and what was left as it is. */
export function useConcerns(start: ComposeStart, composing: Composing): Looked {
  const { work, common, documents, parents, facts, isClear, carriesFile, mailed, message } =
    composing;
  const [waved, setWaved] = useState(composing.begun);
  const { now, ceilings, defaults } = start;
  const ceilingsOf = useMemo(() => {
    const known = new Map(
      documents.map(({ id, markingId, folderId }) => [
        id,
        reaching({ document: id, marking: markingId, folder: folderId }, ceilings, parents),
      ]),
    );
    return (id: DocumentId) => known.get(id) ?? [];
  }, [documents, ceilings, parents]);
  const usualDays =
    reaching({ document: '', marking: null, folder: null }, defaults, parents).at(-1)?.defaults
      .days ?? CAUTIOUS_TERMS.days;
  const { subject, note } = message;
  const lower = useMemo(() => {
    const carried = documents.map(({ markingId }) => markingId);
    return mailed ? markedLower(start.markings, carried, { subject, note }) : null;
  }, [start.markings, documents, mailed, subject, note]);
  const titlesIn = useMemo(() => {
    const hiding = new Set(
      start.markings.flatMap(({ id, hidesTitles }) => (hidesTitles ? [id] : [])),
    );
    const hidden = documents.filter(({ markingId }) => markingId !== null && hiding.has(markingId));
    return mailed ? titlesInMail(hidden, { subject, note }) : null;
  }, [start.markings, documents, mailed, subject, note]);
  const concerns = useMemo(
    () =>
      concernsOf(isClear ? withoutTerms(work.sheet) : work.sheet, {
        now,
        common,
        revoked: new Set(documents.flatMap(({ id, revoked }) => (revoked ? [id] : []))),
        onlyKept: new Set(documents.flatMap(({ id, pages }) => (pages === 0 ? [id] : []))),
        local: new Set(documents.flatMap(({ id, isLocal }) => (isLocal ? [id] : []))),
        carriesFile,
        factsOf: facts,
        ceilingsOf,
        usualEnd: typeof usualDays === 'number' ? endAfter(now, usualDays) : null,
        mailed,
        markedLower: lower,
        titlesIn,
      }).filter(({ code }) => !isClear || !ABOUT_TERMS.has(code)),
    [
      work.sheet,
      now,
      common,
      documents,
      facts,
      ceilingsOf,
      usualDays,
      carriesFile,
      mailed,
      lower,
      titlesIn,
      isClear,
    ],
  );
  const open = concerns.filter((concern) => !isWaved(concern, waved));
  const concernOf = useMemo(() => {
    const weights = weightsOf(concerns);
    return (key: string) => weights.get(key) ?? null;
  }, [concerns]);
  return {
    concerns: open,
    concernOf,
    mend: (mend) => {
      work.change((sheet, standing) => mended(sheet, standing, mend, now));
    },
    wave: ({ code, rows }) => {
      if (isDoubt(code)) setWaved((before) => [...before, { code, rows }]);
    },
    waved: concerns.flatMap(({ code, rows }) =>
      isDoubt(code) && isWaved({ code, rows }, waved) ? [{ code, rows }] : [],
    ),
  };
}

function withoutTerms(sheet: Sheet): Sheet {
  return { ...sheet, rows: sheet.rows.map((row) => ({ ...row, own: {} })) };
}

/** Whether every row it is about was looked at when it was left as it is. */
function isWaved({ code, rows }: Pick<Concern, 'code' | 'rows'>, waved: readonly Waved[]): boolean {
  const same = waved.filter((each) => each.code === code);
  const seen = new Set(same.flatMap((each) => each.rows));
  return isDoubt(code) && same.length > 0 && rows.every((key) => seen.has(key));
}

/** What stands out about each row: what stops it, before what is asked. */
function weightsOf(concerns: readonly Concern[]): ReadonlyMap<string, 'stops' | 'asks'> {
  const weights = new Map<string, 'stops' | 'asks'>();
  for (const { code, rows } of concerns)
    for (const key of rows)
      if (!isDoubt(code)) weights.set(key, 'stops');
      else if (!weights.has(key)) weights.set(key, 'asks');
  return weights;
}
