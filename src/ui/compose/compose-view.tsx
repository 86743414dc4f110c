'use client';

import { isInTheClear } from '@/core/policy/delivery';
import { useState } from 'react';
import { useRouter } from 'next/navigation';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import type { ComposeStart } from '@/contracts/draft';
import type { DocumentRow } from '@/contracts/document';
import type { SavedTermsRow } from '@/contracts/saved-terms';
import type { DocumentId, TermsId } from '@/core/base/ids';
import { judgeWays, waysOf } from '@/core/policy/rules';
import { termsAt } from '@/core/policy/saved-terms';
import { DEFAULT_WATERMARK } from '@/core/watermark/tokens';
import { Note, Problem } from '@/ui/shell/notice';
import { ChipButton } from '@/ui/shell/chips';
import { api } from '@/ui/http/api';
import { sentenceOf } from '@/ui/http/call';
import { BeginningLines, useBeginnings } from '@/ui/compose/beginnings';
import { clearProblems } from '@/ui/compose/ceiling-warnings';
import { ComposeCheck, type Wider } from '@/ui/compose/compose-check';
import { problemsOf } from '@/ui/compose/compose-problems';
import { IN_THE_CLEAR } from '@/core/policy/delivery';
import type { HandingOver } from '@/core/policy/draft';
import { HandOver, firstWay, handOverProblems } from '@/ui/compose/hand-over';
import { DocumentPicker } from '@/ui/compose/document-picker';
import { DraftLine } from '@/ui/compose/draft-line';
import { limitProblems } from '@/ui/compose/limit-problems';
import { useDraft } from '@/ui/compose/use-draft';
import { RecipientsTable } from '@/ui/recipients/recipients-table';
import { useRecipients } from '@/ui/recipients/use-recipients';
import type { TermsDraft } from '@/ui/terms-fields/switch-right';
import { GroupChips } from '@/ui/compose/group-chips';
import { TermsFields } from '@/ui/terms-fields/terms-fields';
import { ruleLine, ruleOf, wayWords } from '@/ui/words/rule-words';
import { rightsLine } from '@/core/policy/rights-line';

type Props = { readonly start: ComposeStart; readonly chosen: readonly DocumentId[] };

const WATERMARK_PIECES =
  '{name} {address} {organisation} {date} {time} {network} {reference} are filled in at each open';

/** One page: documents, recipients, what they may do and until when, and at the side what that means. */
export function ComposeView({ start, chosen }: Props) {
  const { now, mail } = start;
  const begun = start.draft?.body;
  const router = useRouter();
  const [selected, setSelected] = useState<readonly DocumentRow[]>(
    start.picked.filter(({ id }) => (begun?.documents ?? chosen).includes(id)),
  );
  const recipients = useRecipients(begun);
  /** As long as nobody changed them, the terms follow what is set for the chosen documents. */
  const [ownTerms, setTerms] = useState<TermsDraft | null>(begun?.terms ?? null);
  const { begins, around, parents } = useBeginnings(start, selected);
  const terms = ownTerms ?? termsAt(begins.terms, now);
  /** The saved terms that these are, as long as nothing of them is changed. */
  const [kept, setKept] = useState<TermsId | null>(begun?.kept ?? null);
  const [said, setSaid] = useState<string | null>(null);
  const [subject, setSubject] = useState(begun?.subject ?? '');
  const [note, setNote] = useState(begun?.note ?? '');
  const [watermark, setWatermark] = useState(begun?.watermark ?? DEFAULT_WATERMARK);
  const [way, setWay] = useState<HandingOver>(begun?.way ?? firstWay(start.rules));
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
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
    documents: selected.map(({ id }) => id),
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
    ...problemsOf({ documents: selected, people, wider, unreadable, ...given, subject, now, mail }),
    ...limitProblems(start, { people, wider, documents: selected, terms: given.terms }),
    ...handOverProblems(way, domains.length + groups.length),
    ...(isClear ? clearProblems(selected, { rows: start.ceilings, parents }) : []),
    ...forbidden.map(
      (rule) =>
        `${wayWords[rule.way].name}: ${ruleLine(ruleOf(start.rules, rule.way) ?? { ...rule, setByName: '' })}`,
    ),
  ];
  const pick = (document: DocumentRow, on: boolean) => {
    setSelected((before) =>
      on ? [...before, document] : before.filter(({ id }) => id !== document.id),
    );
  };
  const takeTerms = (terms: SavedTermsRow) => {
    setTerms(termsAt(terms, now));
    setKept(terms.id);
    setWatermark(terms.watermark);
    setSaid(`These are the terms “${terms.name}”. Change what differs here.`);
  };

  const send = async () => {
    setBusy(true);
    setProblem(null);
    try {
      const left = await draft.settle();
      const { id } = await api('POST /api/v1/dispatches', {
        draft: left,
        documents: selected.map((document) => document.id),
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
      // What waits for somebody else stands on Today until they answer.
      router.push(id === null ? '/today' : `/dispatches/${id}`);
    } catch (error) {
      draft.goOn();
      setProblem(sentenceOf(error));
      setBusy(false);
    }
  };

  return (
    <main className="work">
      <div className="surface">
        <div className="head">
          <div className="row">
            <h1>{subject === '' ? 'Compose' : subject}</h1>
            <span className="gap" />
            {draft.state !== 'untouched' && (
              <Button
                onClick={() =>
                  void draft.discard().then(() => {
                    window.location.assign('/compose');
                  })
                }
              >
                Discard
              </Button>
            )}
            <Button
              variant="contained"
              disabled={busy || problems.length > 0}
              onClick={() => void send()}
            >
              {agreed.length > 0
                ? 'Ask for approval'
                : isInTheClear(way.form)
                  ? 'Send unprotected'
                  : way.delivery === 'mail'
                    ? 'Encrypt and dispatch'
                    : 'Encrypt for hand-over'}
            </Button>
          </div>
          <DraftLine state={draft.state} drafts={start.drafts} />
          {agreed.length > 0 && (
            <Note>
              {agreed.map((rule) => wayWords[rule.way].name).join(', ')}: it needs a second person.
              Until they approve, nobody is given anything.
            </Note>
          )}
          <Problem words={problem} />
        </div>
        <div
          className="scroll"
          style={{
            padding: '16px 22px 40px',
            display: 'grid',
            gap: 24,
            alignContent: 'start',
            maxWidth: 860,
          }}
        >
          <section className="stack">
            <h2>Documents</h2>
            <DocumentPicker first={start.documents} picked={selected} onPick={pick} />
          </section>
          {start.terms.length > 0 && (
            <section className="stack">
              <h2>Saved terms</h2>
              <div className="row">
                {start.terms.map((each) => (
                  <ChipButton
                    key={each.id}
                    title={rightsLine(each.rights, each.prints)}
                    onClick={() => {
                      takeTerms(each);
                    }}
                  >
                    {each.name}
                  </ChipButton>
                ))}
              </div>
            </section>
          )}
          {!isClear && ownTerms === null && <BeginningLines begins={begins} />}
          {!isClear && (
            <TermsFields
              terms={terms}
              onChange={(changed) => {
                setTerms(changed);
                setKept(null);
              }}
              said={said}
              onSaid={setSaid}
            />
          )}
          <section className="stack loose">
            <h2>People</h2>
            <TextField
              label="Email addresses"
              multiline
              minRows={2}
              value={recipients.text}
              maxRows={6}
              onChange={(event) => {
                recipients.setText(event.target.value);
              }}
              placeholder="Email addresses, separated by commas, spaces or lines; @yard.example for everyone there"
            />
            {start.groups.length > 0 && (
              <GroupChips groups={start.groups} recipients={recipients} />
            )}
            {people.length + domains.length > 0 && (
              <RecipientsTable recipients={recipients} terms={isClear ? null : terms} />
            )}
          </section>
          {!isClear && (
            <section className="stack loose">
              <h2>On every page</h2>
              <TextField
                label="Watermark"
                value={watermark}
                onChange={(event) => {
                  setWatermark(event.target.value);
                }}
                helperText={WATERMARK_PIECES}
              />
            </section>
          )}
          <section className="stack loose">
            <h2>Message</h2>
            <HandOver way={way} rules={start.rules} onChange={setWay} />
            <TextField
              label="Subject"
              required
              value={subject}
              onChange={(event) => {
                setSubject(event.target.value);
              }}
            />
            <TextField
              label="Note"
              multiline
              minRows={3}
              value={note}
              onChange={(event) => {
                setNote(event.target.value);
              }}
              helperText={
                way.delivery === 'mail'
                  ? 'Shown in the mail, in the clear'
                  : 'Shown after the link, once the email address is proven'
              }
            />
          </section>
        </div>
      </div>
      <aside className="side" aria-label="Consequences">
        <ComposeCheck
          ceilings={{ rows: start.ceilings, parents }}
          around={around}
          form={way.form}
          documents={selected}
          people={people}
          wider={wider}
          terms={terms}
          watermark={watermark}
          problems={problems}
          now={now}
        />
      </aside>
    </main>
  );
}
