'use client';

import { useState } from 'react';
import { useRouter } from 'next/navigation';
import type { ComposeStart } from '@/contracts/draft';
import type { DocumentRow } from '@/contracts/document';
import type { SavedTermsRow } from '@/contracts/saved-terms';
import type { DocumentId, TermsId } from '@/core/base/ids';
import { IN_THE_CLEAR, isInTheClear } from '@/core/policy/delivery';
import type { DraftBody, HandingOver } from '@/core/policy/draft';
import { judgeWays, waysOf } from '@/core/policy/rules';
import { termsAt } from '@/core/policy/saved-terms';
import { DEFAULT_WATERMARK } from '@/core/watermark/tokens';
import { useBeginnings } from '@/ui/compose/beginnings';
import { clearProblems } from '@/ui/compose/ceiling-warnings';
import type { Wider } from '@/ui/compose/compose-check';
import { problemsOf } from '@/ui/compose/compose-problems';
import { firstWay, handOverProblems } from '@/ui/compose/hand-over';
import { limitProblems } from '@/ui/compose/limit-problems';
import { useDraft } from '@/ui/compose/use-draft';
import { api } from '@/ui/http/api';
import { sentenceOf } from '@/ui/http/call';
import { useRecipients } from '@/ui/recipients/use-recipients';
import type { TermsDraft } from '@/ui/terms-fields/switch-right';
import { ruleLine, ruleOf, wayWords } from '@/ui/words/rule-words';

/** A draft as far as it was made; the terms are absent while nobody has touched them. */
type Begun = Omit<DraftBody, 'terms' | 'way' | 'kept'> & {
  readonly terms: TermsDraft | null;
  readonly way: HandingOver;
  readonly kept: TermsId | null;
};

function begunOf({ draft, rules }: ComposeStart, chosen: readonly DocumentId[]): Begun {
  const empty: Begun = {
    documents: chosen,
    people: '',
    own: [],
    terms: null,
    subject: '',
    note: '',
    watermark: DEFAULT_WATERMARK,
    way: firstWay(rules),
    kept: null,
  };
  if (draft === null) return empty;
  const { way = empty.way, kept, ...body } = draft.body;
  return { ...body, way, kept: kept ?? null };
}

/** All that is being composed, what stands in its way, and what sends it. */
export function useComposed(start: ComposeStart, chosen: readonly DocumentId[]) {
  const { now } = start;
  const [begun] = useState(() => begunOf(start, chosen));
  const [documents, setDocuments] = useState<readonly DocumentRow[]>(
    start.picked.filter(({ id }) => begun.documents.includes(id)),
  );
  const recipients = useRecipients(begun);
  const termsPart = useTerms(start, begun, documents);
  const { terms, kept, watermark, parents } = termsPart;
  const [subject, setSubject] = useState(begun.subject);
  const [note, setNote] = useState(begun.note);
  const [way, setWay] = useState(begun.way);
  const { domains, groups, unreadable } = recipients;
  const isClear = isInTheClear(way.form);
  // What leaves in the clear has no terms and no watermark, whatever was set before that was chosen.
  const given = isClear
    ? { terms: IN_THE_CLEAR, watermark: '', kept: null }
    : { terms, watermark, kept };
  const people = isClear
    ? recipients.people.map((person) => ({ ...person, terms: null }))
    : recipients.people;
  const draft = useDraft(start.draft?.id ?? null, {
    documents: documents.map(({ id }) => id),
    people: recipients.text,
    own: recipients.own,
    groups,
    terms,
    subject,
    note,
    watermark,
    way,
    kept,
  });
  const wider: Wider = {
    domains,
    groups: start.groups.filter(({ id }) => groups.includes(id)),
    openLink: way.openLink,
    mailed: way.delivery === 'mail',
  };
  const { forbidden, agreed } = judgeWays(
    start.rules,
    waysOf({ form: way.form, domains, openLink: way.openLink }),
  );
  const problems = [
    ...problemsOf({
      documents,
      people,
      wider,
      unreadable,
      ...given,
      subject,
      now,
      mail: start.mail,
    }),
    ...limitProblems(start, { people, wider, documents, terms: given.terms }),
    ...handOverProblems(way, domains.length + groups.length),
    ...(isClear ? clearProblems(documents, { rows: start.ceilings, parents }) : []),
    ...forbidden.map(
      (rule) =>
        `${wayWords[rule.way].name}: ${ruleLine(ruleOf(start.rules, rule.way) ?? { ...rule, setByName: '' })}`,
    ),
  ];
  const sent = useSend(draft, {
    documents: documents.map(({ id }) => id),
    recipients: people.map(({ address, name, organisation, terms: own }) => ({
      address,
      name,
      organisation,
      terms: own,
    })),
    groups,
    domains: domains.map(({ domain }) => domain),
    ...given,
    subject,
    note,
    ...way,
  });
  return {
    ...termsPart,
    ...sent,
    documents,
    pick: (document: DocumentRow, on: boolean) => {
      setDocuments((before) =>
        on ? [...before, document] : before.filter(({ id }) => id !== document.id),
      );
    },
    recipients,
    people,
    wider,
    subject,
    setSubject,
    note,
    setNote,
    way,
    setWay,
    isClear,
    draft,
    /** Ways in which it goes out that need a second person. */
    agreed,
    problems,
  };
}

export type Composed = ReturnType<typeof useComposed>;

/** The terms of everybody, and what stands on every page. */
function useTerms(start: ComposeStart, begun: Begun, documents: readonly DocumentRow[]) {
  /** As long as nobody changed them, the terms follow what is set for the chosen documents. */
  const [own, setOwn] = useState(begun.terms);
  const { begins, around, parents } = useBeginnings(start, documents);
  /** The saved terms that these are, as long as nothing of them is changed. */
  const [kept, setKept] = useState(begun.kept);
  const [said, setSaid] = useState<string | null>(null);
  const [watermark, setWatermark] = useState(begun.watermark);
  return {
    terms: own ?? termsAt(begins.terms, start.now),
    isUntouched: own === null,
    begins,
    around,
    parents,
    kept,
    said,
    setSaid,
    watermark,
    setWatermark,
    changeTerms: (changed: TermsDraft) => {
      setOwn(changed);
      setKept(null);
    },
    takeTerms: (saved: SavedTermsRow) => {
      setOwn(termsAt(saved, start.now));
      setKept(saved.id);
      setWatermark(saved.watermark);
      setSaid(`These are the terms “${saved.name}”. Change what differs here.`);
    },
  };
}

type Body = Omit<Parameters<typeof api<'POST /api/v1/dispatches'>>[1], 'draft'>;

function useSend({ settle, goOn }: ReturnType<typeof useDraft>, body: Body) {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const send = async () => {
    setBusy(true);
    setProblem(null);
    try {
      const { id } = await api('POST /api/v1/dispatches', { draft: await settle(), ...body });
      // What waits for somebody else stands on Today until they answer.
      router.push(id === null ? '/today' : `/dispatches/${id}`);
    } catch (error) {
      goOn();
      setProblem(sentenceOf(error));
      setBusy(false);
    }
  };
  return { busy, problem, send };
}
