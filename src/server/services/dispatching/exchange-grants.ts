import 'server-only';
import type { Watermark } from '@/core/watermark/layers';
import { stopped } from '@/core/odrl/stopped-words';
import { isId, type DispatchId, type GrantId } from '@/core/base/ids';
import { grantsFromOdrl, grantsToOdrl, type ReadGrant, type StatedGrant } from '@/core/odrl/grants';
import type { Unknown } from '@/core/odrl/report';
import { windowState } from '@/core/policy/decide';
import { reaches } from '@/core/policy/permissions';
import { termsText, type Terms } from '@/core/policy/rights';
import { dispatchesOf, type Gift, type PlannedDispatch } from '@/core/policy/dispatches';
import { normaliseAddress } from '@/core/policy/address';
import { groupOf } from '@/core/policy/addressee';
import {
  dispatchInput,
  termsInput,
  type DispatchInput,
  type TermsInput,
} from '@/contracts/dispatch';
import type { Brought, OdrlDocument, StatedTerms } from '@/contracts/odrl';
import type { Reading, Transaction } from '@/server/db/database';
import { findDispatch } from '@/server/repositories/dispatching/dispatch-repository';
import { findRecipients } from '@/server/repositories/people/recipient-repository';
import { grantsOf, toFacts } from '@/server/repositories/access/grant-reader';
import { documentsByReference } from '@/server/repositories/documents/document-repository';
import { changeGrantsIn } from '@/server/services/access/change-grants';
import { revokeGrantsIn } from '@/server/services/access/revoke-grants';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { beginningOf } from '@/server/services/policy/manage-defaults';
import { policiesOf } from '@/server/services/policy/odrl-file';
import { sendIn } from '@/server/services/dispatching/send-documents';

/** The grants of a dispatch as a document that other programs read. @throws ServiceError `NOT_FOUND` */
export async function takeGrantsOut(
  { db }: Deps,
  _actor: StaffActor,
  { id }: { readonly id: DispatchId },
): Promise<OdrlDocument> {
  const found = await findDispatch(db.read, id);
  if (found === null) throw new ServiceError('no-dispatch');
  const rows = await grantsOf(db.read, { dispatch: id });
  return {
    name: `${found.dispatch.reference}.jsonld`,
    document: grantsToOdrl(
      rows.map(({ grant, recipient, document }) => ({
        id: grant.id,
        parent: grant.parentId,
        reference: document.reference,
        giver: found.senderEmail,
        address: recipient.address,
        terms: toFacts(grant).terms,
        revoked: grant.revokedAt !== null,
      })),
    ),
  };
}

type Known = Awaited<ReturnType<typeof grantsOf>>[number];
type Step =
  | ({ readonly kind: 'give' } & Gift<TermsInput>)
  | { readonly kind: 'change'; readonly known: Known; readonly terms: TermsInput }
  | { readonly kind: 'revoke'; readonly grant: GrantId };
type Plan = Brought & { readonly step: Step | null };

function statedTerms({ rights, prints, conditions, from, until }: Terms): StatedTerms {
  return { rights, prints, conditions, end: { from, until } };
}

/** One spelling of an address, and no count of prints where nothing is printed. */
function inOurSpelling({ grant, unknown }: ReadGrant): ReadGrant {
  if (grant === null) return { grant, unknown };
  const { address, terms } = grant;
  return {
    grant: {
      ...grant,
      address: normaliseAddress(address) ?? address,
      terms: { ...terms, prints: terms.rights.includes('print') ? terms.prints : null },
    },
    unknown,
  };
}

/** The terms of a grant, and what of them is not possible here. */
function checkedTerms({ grant, unknown }: ReadGrant): {
  readonly terms: TermsInput | null;
  readonly problems: readonly Unknown[];
} {
  if (grant === null || unknown.length > 0) return { terms: null, problems: unknown };
  const { success, data, error } = termsInput.safeParse(grant.terms);
  return success
    ? { terms: data, problems: [] }
    : {
        terms: null,
        problems: error.issues.map(({ path, message }) => ({
          path: ['permission', ...path].join('/'),
          what: message,
        })),
      };
}

/** What stands in the way of changing a grant there is. */
function whyNotChanged(
  actor: StaffActor,
  grant: StatedGrant,
  { grant: { fromAt, revokedAt, parentId }, recipient, document, dispatch }: Known,
): Unknown | null {
  if (document.reference !== grant.reference || recipient.address !== grant.address)
    return stopped.forOthers(recipient.address, document.reference);
  if (
    !reaches(actor, { sender: dispatch.sentBy, owner: document.ownerId, deputy: document.deputyId })
  )
    return stopped.ofOthers;
  if (parentId !== grant.parent) return stopped.notPassedOn;
  if (revokedAt !== null && !grant.revoked) return stopped.revokedHere;
  if (fromAt !== grant.terms.from) return stopped.startMoved;
  return null;
}

/** What stands in the way of giving one that there is not yet. */
function whyNotGiven(
  grant: StatedGrant,
  document: { readonly revokedAt: number | null } | undefined,
  blocked: boolean,
  now: number,
): Unknown | null {
  const { address, revoked, terms } = grant;
  if (grant.id !== null) return stopped.noGrant;
  if (grant.parent !== null) return stopped.boundAbove;
  if (document === undefined) return stopped.noDocument(grant.reference);
  if (document.revokedAt !== null) return stopped.documentRevoked(grant.reference);
  if (!address.startsWith('@') && groupOf(address) === null && normaliseAddress(address) === null)
    return stopped.noRecipient(address);
  if (blocked) return stopped.blocked(address);
  if (revoked) return stopped.revoked;
  return windowState({ revoked, terms }, now) === 'expired' ? stopped.ended : null;
}

/** What each agreement comes to beside the grants there are; what stands twice is stopped the second time. */
async function planOf(
  db: Reading | Transaction,
  actor: StaffActor,
  text: string,
  now: number,
): Promise<Plan[]> {
  const read = policiesOf(text, grantsFromOdrl).map(inOurSpelling);
  const stated = read.flatMap(({ grant }) => grant ?? []);
  const [documents, recipients] = [
    await documentsByReference(db, [...new Set(stated.map(({ reference }) => reference))]),
    await findRecipients(db, [...new Set(stated.map(({ address }) => address))]),
  ];
  const papers = new Map(documents.map((document) => [document.reference, document]));
  const blocked = new Set(
    recipients.filter((recipient) => recipient.blocked).map(({ address }) => address),
  );
  const among = await grantsOf(db, {
    among: {
      documents: documents.map(({ id }) => id),
      recipients: recipients.map(({ id }) => id),
      ids: stated.flatMap(({ id }) => (id !== null && isId('grant', id) ? [id] : [])),
    },
  });
  const byId = new Map<string, Known>(among.map((known) => [known.grant.id, known]));
  const held = new Set(
    among
      .filter(({ grant }) => grant.revokedAt === null)
      .map(({ grant, recipient, document }) =>
        heldText(document.reference, recipient.address, toFacts(grant).terms),
      ),
  );
  const seen = new Set<string>();
  const onFile: OnFile = { actor, now, papers, blocked, byId, held };
  return read.map((each): Plan => {
    const { grant } = each;
    const name = grant === null ? 'no agreement' : `${grant.reference} for ${grant.address}`;
    const { terms, problems } = checkedTerms(each);
    if (grant === null || terms === null) return stoppedPlan(name, problems);
    const key = grant.id ?? name;
    if (seen.has(key)) return stoppedPlan(name, [stopped.agreementTwice]);
    seen.add(key);
    const known = grant.id === null ? undefined : byId.get(grant.id);
    const row: Row = { name, terms: statedTerms(terms), before: null, unknown: [] };
    return known === undefined
      ? planOfNew(onFile, row, grant, terms)
      : planOfKnown(onFile, row, grant, terms, known);
  });
}

type Paper = Awaited<ReturnType<typeof documentsByReference>>[number];
type Row = Pick<Plan, 'name' | 'terms' | 'before' | 'unknown'>;
/** What is here of all that a document names. */
type OnFile = {
  readonly actor: StaffActor;
  readonly now: number;
  readonly papers: ReadonlyMap<string, Paper>;
  readonly blocked: ReadonlySet<string>;
  readonly byId: ReadonlyMap<string, Known>;
  /** What is given and not revoked, as text. */
  readonly held: ReadonlySet<string>;
};

function heldText(reference: string, address: string, terms: Terms): string {
  return `${reference} ${address} ${termsText(terms)}`;
}

function stoppedPlan(name: string, unknown: readonly Unknown[]): Plan {
  return { name, state: 'stopped', terms: null, before: null, unknown, step: null };
}

/** A grant that is not here: given, unless somebody has just that already. */
function planOfNew(
  { papers, blocked, held, now }: OnFile,
  row: Row,
  grant: StatedGrant,
  terms: TermsInput,
): Plan {
  const isNamed = grant.id !== null || grant.revoked;
  if (!isNamed && held.has(heldText(grant.reference, grant.address, terms)))
    return { ...row, state: 'same', step: null };
  const document = papers.get(grant.reference);
  const why = whyNotGiven(grant, document, blocked.has(grant.address), now);
  if (why !== null || document === undefined)
    return stoppedPlan(row.name, why === null ? [] : [why]);
  const step = { kind: 'give' as const, document: document.id, address: grant.address, terms };
  return { ...row, state: 'new', step };
}

/** A grant that is here: revoked, changed or left as it is. */
function planOfKnown(
  { actor }: OnFile,
  row: Row,
  grant: StatedGrant,
  terms: TermsInput,
  known: Known,
): Plan {
  const why = whyNotChanged(actor, grant, known);
  if (why !== null) return stoppedPlan(row.name, [why]);
  const same: Plan = { ...row, state: 'same', step: null };
  if (grant.revoked)
    return known.grant.revokedAt === null
      ? { ...row, state: 'revoked', step: { kind: 'revoke', grant: known.grant.id } }
      : same;
  const { terms: before } = toFacts(known.grant);
  if (termsText(before) === termsText(terms)) return same;
  return {
    ...row,
    state: 'changed',
    before: statedTerms(before),
    step: { kind: 'change', known, terms },
  };
}

/** What a document would change, before anything is. @throws ServiceError `INVALID` where it is no such document */
export async function previewGrants(
  deps: Deps,
  actor: StaffActor,
  { text }: { readonly text: string },
): Promise<{ readonly brought: readonly Brought[] }> {
  return {
    brought: (await planOf(deps.db.read, actor, text, deps.clock.now())).map(
      ({ step: _step, ...row }) => row,
    ),
  };
}

function stepsOf<K extends Step['kind']>(
  plans: readonly Plan[],
  kind: K,
): Extract<Step, { readonly kind: K }>[] {
  return plans.flatMap(({ step }) =>
    step?.kind === kind ? [step as Extract<Step, { readonly kind: K }>] : [],
  );
}

/** @throws ServiceError `INVALID` for more than a dispatch carries */
function sendingInput(
  { documents, addresses, terms }: PlannedDispatch<TermsInput>,
  subject: string,
  watermark: Watermark,
): DispatchInput {
  const groups = addresses.flatMap((address) => {
    const id = groupOf(address);
    return id === null ? [] : [{ id }];
  });
  const domains = addresses
    .filter((address) => address.startsWith('@'))
    .map((domain) => ({ domain }));
  const people = addresses.filter(
    (address) => !address.startsWith('@') && groupOf(address) === null,
  );
  const checked = dispatchInput.safeParse({
    documents,
    recipients: people.map((address) => ({ address })),
    groups,
    domains,
    terms,
    subject,
    note: '',
    watermark,
    delivery: 'by-hand',
  });
  if (!checked.success)
    throw new ServiceError('agreement-unreadable', {
      issues: checked.error.issues.map(({ message }) => message),
    });
  return checked.data;
}

/**
 * Changes grants to what a file says, each once. What stands beneath another is looked at again
 * when that has its new terms: it may have followed.
 */
async function changeAll(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  text: string,
  now: number,
): Promise<void> {
  const done = new Set<GrantId>();
  for (;;) {
    const changes = stepsOf(await planOf(tx, actor, text, now), 'change').filter(
      ({ known }) => !done.has(known.grant.id),
    );
    if (changes.length === 0) return;
    const waiting = new Set(changes.map(({ known }) => known.grant.id));
    const first = changes.filter(
      ({ known: { grant } }) => grant.parentId === null || !waiting.has(grant.parentId),
    );
    await changeGrantsIn(
      deps,
      tx,
      actor,
      {
        changes: first.map(
          ({ known: { grant }, terms: { rights, prints, until, conditions = null } }) => ({
            grant: grant.id,
            revision: grant.revision,
            rights,
            prints,
            until,
            conditions,
          }),
        ),
      },
      now,
    );
    for (const { known } of first) done.add(known.grant.id);
  }
}

/**
 * Gives, changes and revokes what the agreements of a document say that are understood whole, all
 * at once; the others stay out. What is new is given in the name of the person who brings it in, by
 * dispatches without mail, within the rules for any dispatch.
 *
 * @returns how many agreements are as they were to be, and how many dispatches wait for a second
 * person
 * @throws ServiceError `INVALID`, `NOT_ALLOWED`; else as for any dispatch
 */
export async function importGrants(
  deps: Deps,
  actor: StaffActor,
  { text, subject }: { readonly text: string; readonly subject: string },
): Promise<{ readonly taken: number; readonly waiting: number }> {
  const now = deps.clock.now();
  return deps.db.write(async (tx) => {
    const plans = await planOf(tx, actor, text, now);
    const [gifts, cuts, changes] = [
      stepsOf(plans, 'give'),
      stepsOf(plans, 'revoke'),
      stepsOf(plans, 'change'),
    ];
    if (cuts.length > 0)
      await revokeGrantsIn(
        deps,
        tx,
        actor,
        cuts.map(({ grant }) => grant),
        now,
      );
    if (changes.length > 0) await changeAll(deps, tx, actor, text, now);
    let waiting = 0;
    for (const giving of dispatchesOf(gifts)) {
      const { watermark } = (await beginningOf(deps, giving.documents)).terms;
      if ((await sendIn(deps, tx, actor, sendingInput(giving, subject, watermark), now)).waits)
        waiting++;
    }
    return { taken: gifts.length + cuts.length + changes.length, waiting };
  });
}
