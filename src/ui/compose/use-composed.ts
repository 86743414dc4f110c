'use client';

import { useMemo, useState } from 'react';
import type { DocumentRow } from '@/contracts/document';
import type { ComposeStart } from '@/contracts/draft';
import type { DocumentId, FolderId, DraftId } from '@/core/base/ids';
import { folderMarking } from '@/core/content/folders';
import type { DraftBody, HandingOver } from '@/core/compose/draft';
import { parsePasted } from '@/core/compose/pasted';
import type { Mend } from '@/core/compose/mend';
import { addRows, EMPTY_SHEET, pickDocument, type Sheet } from '@/core/compose/sheet';
import { IN_THE_CLEAR, carriesFile, isInTheClear } from '@/core/policy/delivery';
import type { Parents } from '@/core/policy/levels';
import type { Terms } from '@/core/policy/rights';
import { judgeWays, waysOf } from '@/core/policy/rules';
import { termsWithin } from '@/core/policy/sender-limits';
import { termsAt } from '@/core/policy/saved-terms';
import { DEFAULT_WATERMARK } from '@/core/watermark/layers';
import { beginningsOf } from '@/ui/compose/beginnings';
import { clearProblems } from '@/ui/compose/ceiling-warnings';
import { handOverProblems, problemsOf } from '@/ui/compose/compose-problems';
import { firstWay } from '@/ui/compose/hand-over';
import { limitProblems } from '@/ui/compose/limit-problems';
import { useConcerns } from '@/ui/compose/use-concerns';
import { useDraft } from '@/ui/compose/use-draft';
import { useSend } from '@/ui/compose/use-send';
import { pastedRows } from '@/ui/recipients/pasted-rows';
import { gridColumns } from '@/ui/recipients/grid-columns';
import { useGridRows } from '@/ui/recipients/use-grid-rows';
import { useFacts } from '@/ui/recipients/use-facts';
import { useSheet } from '@/ui/recipients/use-sheet';
import { useFiles, type Files } from '@/ui/protecting/use-files';
import { ruleLine, ruleOf, wayWords } from '@/ui/words/rule-words';

function begunOf(
  { draft, again, rules }: ComposeStart,
  chosen: readonly DocumentId[],
  to: string,
): DraftBody {
  return (
    draft?.body ??
    again ?? {
      sheet: addRows({ ...EMPTY_SHEET, documents: chosen }, pastedRows(parsePasted(to))),
      subject: '',
      note: '',
      watermark: DEFAULT_WATERMARK,
      way: firstWay(rules),
      waved: [],
    }
  );
}

/** Documents that were ever chosen here, so that one that is chosen again by undoing is known. */
function useShelf(picked: readonly DocumentRow[]) {
  const [shelf, setShelf] = useState<ReadonlyMap<DocumentId, DocumentRow>>(
    () => new Map(picked.map((document) => [document.id, document])),
  );
  return {
    shelf,
    rowsOf: (ids: readonly DocumentId[]) => rowsOf(shelf, ids),
    put: (document: DocumentRow) => {
      setShelf((before) => new Map(before).set(document.id, document));
    },
  };
}

function rowsOf(
  shelf: ReadonlyMap<DocumentId, DocumentRow>,
  ids: readonly DocumentId[],
): readonly DocumentRow[] {
  return ids.flatMap((id) => shelf.get(id) ?? []);
}

/** All that is being composed, what stands in its way, and what sends it. */
export function useComposed(
  start: ComposeStart,
  chosen: readonly DocumentId[],
  to: string,
  onMade: (id: DraftId) => void,
) {
  const [begun] = useState(() => begunOf(start, chosen, to));
  const parents: Parents = useMemo(() => new Map(Object.entries(start.parents)), [start.parents]);
  const shelf = useShelf(start.picked);
  const work = useSheet(begun.sheet, (sheet) => beginningTerms(start, parents, shelf, sheet));
  const [subject, setSubject] = useState(begun.subject);
  const [note, setNote] = useState(begun.note);
  const [watermark, setWatermark] = useState(begun.watermark);
  const [way, setWay] = useState(begun.way);
  const [leavesAt, setLeavesAt] = useState(begun.leavesAt ?? null);
  const isClear = isInTheClear(way.form);
  const documents = useMemo(
    () => rowsOf(shelf.shelf, work.sheet.documents),
    [shelf.shelf, work.sheet.documents],
  );
  const facts = useFacts(work.sheet.rows);
  const rows = useGridRows(work, facts, isClear ? IN_THE_CLEAR : null);
  const common = isClear ? IN_THE_CLEAR : work.common;
  const looked = useConcerns(start, {
    begun: begun.waved,
    work,
    common,
    documents,
    parents,
    facts,
    isClear,
    mailed: way.delivery === 'mail',
    carriesFile: carriesFile(way.form) || isInTheClear(way.form),
    message: { subject, note: way.noteInMail ? note : '' },
  });
  const [folderId, setFolderId] = useState<FolderId | null>(null);
  const files = useFiles(
    {
      markings: start.markings,
      folderId,
      folderMarking: folderMarking(start.folders, folderId),
    },
    (document) => {
      shelf.put(document);
      work.change((sheet) => pickDocument(sheet, document.id, true));
    },
  );
  const draft = useDraft(
    start.draft,
    {
      sheet: work.sheet,
      subject,
      note,
      watermark,
      way,
      leavesAt,
      waved: looked.waved,
    },
    onMade,
  );
  // The same columns are the same list, so that rows which did not change are not drawn again.
  const columns = useMemo(
    () => gridColumns({ isClear, documents: documents.length }),
    [isClear, documents.length],
  );
  const ways = waysOfSheet(way, work.sheet);
  const { forbidden, agreed } = judgeWays(start.rules, waysOf(ways));
  const many = work.sheet.rows.some(({ kind }) => kind !== 'person');
  const problems = [
    ...fileProblems(files),
    ...problemsOf({ rows: rows.length, subject }, start),
    ...(leavesAt !== null && leavesAt <= start.now
      ? ['It is to leave at a time that is over.']
      : []),
    ...(leavesAt !== null && agreed.length > 0
      ? ['It needs a second person, and leaves when they approve. Remove the later time.']
      : []),
    ...limitProblems(start, parents, { rows, documents, common }),
    ...handOverProblems(way, many),
    ...(isClear ? clearProblems(documents, { rows: start.ceilings, parents }) : []),
    ...forbidden.map(
      (rule) =>
        `${wayWords[rule.way].name}: ${ruleLine(ruleOf(start.rules, rule.way) ?? { ...rule, setByName: '' })}`,
    ),
  ];
  const sent = useSend(draft, {
    rows,
    sheet: work.sheet,
    common,
    subject,
    note,
    watermark: isClear ? [] : watermark,
    way,
    waved: looked.waved.map(({ code }) => code),
    leavesAt,
  });
  return {
    work,
    rows,
    columns,
    facts,
    documents,
    parents,
    begins: beginningsOf(start, parents, documents),
    files,
    /** Where files that are dropped are put. */
    folderId,
    setFolderId,
    pick: (document: DocumentRow, on: boolean) => {
      shelf.put(document);
      work.change((sheet) => pickDocument(sheet, document.id, on));
    },
    subject,
    setSubject,
    note,
    setNote,
    watermark,
    setWatermark,
    way,
    setWay,
    leavesAt,
    setLeavesAt,
    isClear,
    common,
    draft,
    ...looked,
    mend: (mend: Mend) => {
      if (mend.kind === 'note-behind-link') setWay({ ...way, noteInMail: false });
      else looked.mend(mend);
    },
    ...sent,
    /** Whether it is still being looked up whom the rows are for. */
    isChecking: rows.some(
      ({ row, known }) => known === undefined && (row.kind === 'person' || row.kind === 'domain'),
    ),
    /** Files that are still being protected. */
    coming: comingOf(files),
    /** Ways in which it goes out that need a second person. */
    agreed,
    problems,
  };
}

export type Composed = ReturnType<typeof useComposed>;

/** Files that will be documents by themselves in a moment. */
function comingOf({ jobs }: Files): number {
  return jobs.filter(({ state }) => state !== 'asks' && state !== 'failed').length;
}

function beginningTerms(
  start: ComposeStart,
  parents: Parents,
  shelf: ReturnType<typeof useShelf>,
  sheet: Sheet,
): Terms {
  const { terms } = beginningsOf(start, parents, shelf.rowsOf(sheet.documents));
  const begun = termsAt(terms, start.now);
  // A sender with limits begins within them.
  return start.limits === null ? begun : termsWithin(begun, start.limits.limits, start.now);
}

/** Files that are not documents yet keep it from going out. */
function fileProblems({ jobs }: Files): string[] {
  const asks = jobs.filter(({ state }) => state === 'asks');
  const failed = jobs.filter(({ state }) => state === 'failed');
  const same = jobs.filter(({ state }) => state === 'same');
  return [
    ...asks.map(({ title }) => `Choose how “${title}” is marked.`),
    ...failed.map(({ file }) => `${file.name} could not be protected. Try again or remove it.`),
    ...same.map(({ file }) => `${file.name} is protected already. Use that document or remove it.`),
  ];
}

/** What a sheet asks of the rules of the organisation. */
function waysOfSheet({ form }: HandingOver, { rows }: Sheet) {
  return {
    form,
    domains: rows.filter(({ kind }) => kind === 'domain'),
    openLink: rows.find(({ kind }) => kind === 'link') ?? null,
  };
}
