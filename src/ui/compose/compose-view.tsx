'use client';

import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import type { ComposeStart } from '@/contracts/draft';
import type { DocumentId } from '@/core/base/ids';
import { rightsLine } from '@/core/policy/rights-line';
import { BeginningLines } from '@/ui/compose/beginnings';
import { ComposeCheck } from '@/ui/compose/compose-check';
import { DocumentPicker } from '@/ui/compose/document-picker';
import { DraftLine } from '@/ui/compose/draft-line';
import { GroupChips } from '@/ui/compose/group-chips';
import { HandOver } from '@/ui/compose/hand-over';
import { useComposed, type Composed } from '@/ui/compose/use-composed';
import { RecipientsTable } from '@/ui/recipients/recipients-table';
import { ChipButton } from '@/ui/shell/chips';
import { Note, Problem } from '@/ui/shell/notice';
import { TermsFields } from '@/ui/terms-fields/terms-fields';
import { wayWords } from '@/ui/words/rule-words';

const WATERMARK_PIECES =
  '{name} {address} {organisation} {date} {time} {network} {reference} are filled in at each open';

type PartProps = { readonly start: ComposeStart; readonly composed: Composed };

/** One page: documents, recipients, what they may do and until when, and at the side what that means. */
export function ComposeView({
  start,
  chosen,
}: {
  readonly start: ComposeStart;
  readonly chosen: readonly DocumentId[];
}) {
  const composed = useComposed(start, chosen);
  return (
    <main className="work">
      <div className="surface">
        <ComposeHead start={start} composed={composed} />
        <div className="scroll compose-parts">
          <section className="stack">
            <h2>Documents</h2>
            <DocumentPicker
              first={start.documents}
              picked={composed.documents}
              onPick={composed.pick}
            />
          </section>
          <SavedTermsPart start={start} composed={composed} />
          {!composed.isClear && <TermsPart composed={composed} />}
          <PeoplePart start={start} composed={composed} />
          {!composed.isClear && <WatermarkPart composed={composed} />}
          <MessagePart start={start} composed={composed} />
        </div>
      </div>
      <aside className="side" aria-label="Consequences">
        <ComposeCheck
          ceilings={{ rows: start.ceilings, parents: composed.parents }}
          around={composed.around}
          form={composed.way.form}
          documents={composed.documents}
          people={composed.people}
          wider={composed.wider}
          terms={composed.terms}
          watermark={composed.watermark}
          problems={composed.problems}
          now={start.now}
        />
      </aside>
    </main>
  );
}

function sendWords({ agreed, isClear, way }: Composed): string {
  if (agreed.length > 0) return 'Ask for approval';
  if (isClear) return 'Send unprotected';
  return way.delivery === 'mail' ? 'Encrypt and dispatch' : 'Encrypt for hand-over';
}

function ComposeHead({ start, composed }: PartProps) {
  const { subject, draft, busy, problems, problem, agreed, send } = composed;
  return (
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
          {sendWords(composed)}
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
  );
}

function SavedTermsPart({ start, composed }: PartProps) {
  if (start.terms.length === 0) return null;
  return (
    <section className="stack">
      <h2>Saved terms</h2>
      <div className="row">
        {start.terms.map((each) => (
          <ChipButton
            key={each.id}
            title={rightsLine(each.rights, each.prints)}
            onClick={() => {
              composed.takeTerms(each);
            }}
          >
            {each.name}
          </ChipButton>
        ))}
      </div>
    </section>
  );
}

function TermsPart({ composed }: Pick<PartProps, 'composed'>) {
  return (
    <>
      {composed.isUntouched && <BeginningLines begins={composed.begins} />}
      <TermsFields
        terms={composed.terms}
        onChange={composed.changeTerms}
        said={composed.said}
        onSaid={composed.setSaid}
      />
    </>
  );
}

function PeoplePart({ start, composed }: PartProps) {
  const { recipients, people, wider, isClear, terms } = composed;
  return (
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
      {start.groups.length > 0 && <GroupChips groups={start.groups} recipients={recipients} />}
      {people.length + wider.domains.length > 0 && (
        <RecipientsTable recipients={recipients} terms={isClear ? null : terms} />
      )}
    </section>
  );
}

function WatermarkPart({ composed }: Pick<PartProps, 'composed'>) {
  return (
    <section className="stack loose">
      <h2>On every page</h2>
      <TextField
        label="Watermark"
        value={composed.watermark}
        onChange={(event) => {
          composed.setWatermark(event.target.value);
        }}
        helperText={WATERMARK_PIECES}
      />
    </section>
  );
}

function MessagePart({ start, composed }: PartProps) {
  const { way, setWay, subject, setSubject, note, setNote } = composed;
  return (
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
  );
}
