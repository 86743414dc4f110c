import 'server-only';
import type { FolderId, LicenceId, RecipientId } from '@/core/base/ids';
import { type Ceiling } from '@/core/policy/ceiling';
import { reaching } from '@/core/policy/levels';
import { compileDocument, type CompiledDocument, type GrantFacts } from '@/core/policy/compile';
import { domainOf } from '@/core/policy/address';
import type { Circumstances } from '@/core/policy/conditions';
import type { Asking } from '@/core/policy/decide';
import { plainAddress } from '@/server/places/places';
import { folderParents, listCeilings } from '@/server/repositories/policy/ceiling-repository';
import {
  grantsOfDomain,
  grantsOfRecipient,
  toFacts,
  toFactsAbove,
  usedOf,
} from '@/server/repositories/access/grant-reader';
import type { findDocument } from '@/server/repositories/documents/document-repository';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import { passedOnFrom } from '@/server/repositories/access/wider-repository';
import type { Reading, Transaction } from '@/server/db/database';
import { areOurs, isWhole, onlyOurs } from '@/server/services/base/trusted-rows';
import type { Deps, ReaderActor } from '@/server/services/base/deps';

type Found = NonNullable<Awaited<ReturnType<typeof findDocument>>>;

/** Answers which ceilings reach a document. */
export async function ceilingFinder(
  db: Reading | Transaction,
): Promise<(document: Found['document']) => readonly Ceiling[]> {
  const ceilings = await listCeilings(db);
  const parents = ceilings.some(({ level }) => level === 'folder')
    ? await folderParents(db)
    : new Map<string, string | null>();
  return ({ id, markingId, folderId }) =>
    reaching({ document: id, marking: markingId, folder: folderId }, ceilings, parents);
}

/** Whether anything about a document asks how often, or on what, it was opened. */
function asksForUse(
  grants: readonly { readonly conditions: unknown }[],
  ceilings: readonly Ceiling[],
): boolean {
  return (
    grants.some(({ conditions }) => conditions !== null) ||
    ceilings.some(({ limits }) => limits.opens !== null)
  );
}

/** Somebody by their address, known here or not. */
export type Somebody = { readonly id: RecipientId | null; readonly address: string };

/** How the policy knows somebody of whom nothing is known but an address. */
export const NOBODY_YET: RecipientId = 'rcp_nobody-yet';

/** Who asks, as the policy takes it. */
export function askerOf(
  { address }: Pick<Somebody, 'address'>,
  known: { readonly id: RecipientId; readonly blocked: boolean } | null,
): NonNullable<Asking['recipient']> {
  return {
    id: known?.id ?? NOBODY_YET,
    blocked: known?.blocked ?? false,
    domain: domainOf(address),
  };
}

/**
 * Whether what stands around a document is as this product wrote it: the document and its version,
 * the folders it lies in, the person, and every ceiling there is.
 */
export async function standsAsWritten(
  deps: Pick<Deps, 'integrity'>,
  db: Reading | Transaction,
  { document, version }: Found,
  person: RecipientId | null,
): Promise<boolean> {
  const parents =
    document.folderId === null ? new Map<FolderId, FolderId | null>() : await folderParents(db);
  const around = new Set<FolderId>();
  for (let at = document.folderId; at !== null && !around.has(at); at = parents.get(at) ?? null)
    around.add(at);
  const rows = {
    documents: [document.id],
    versions: [version.id],
    recipients: person === null ? [] : [person],
    folders: [...around],
    ceilings: 'all' as const,
  };
  return (await areOurs(deps, db, rows)) && (await isWhole(deps, db, 'ceilings'));
}

/**
 * What decides about a document for one person, from the tables as they are now.
 *
 * @param except an open that goes on
 * @param supposed a grant that is not given yet, as if it were
 */
export async function policyFor(
  deps: Pick<Deps, 'integrity'>,
  db: Reading | Transaction,
  { document, version }: Found,
  { id, address }: Somebody,
  except: LicenceId | null = null,
  supposed: GrantFacts | null = null,
): Promise<CompiledDocument> {
  const domain = domainOf(address);
  const [loaded, widerLoaded, over] = await Promise.all([
    id === null ? [] : grantsOfRecipient(db, id, document.id),
    grantsOfDomain(db, domain, id, document.id),
    ceilingFinder(db),
  ]);
  const ceilings = over(document);
  // A grant that was written into the database by another program opens nothing.
  const ours = new Set(
    (
      await onlyOurs(deps, db, 'grants', [
        ...loaded,
        ...widerLoaded,
        ...(await passedOnFrom(db, loaded)),
      ])
    ).map((grant) => grant.id),
  );
  const [grants, wider] = [
    loaded.filter((grant) => ours.has(grant.id)),
    widerLoaded.filter((grant) => ours.has(grant.id)),
  ];
  const above = (await passedOnFrom(db, grants)).filter((grant) => ours.has(grant.id));
  const others = above.filter((each) => !grants.some((own) => own.id === each.id));
  const rows = [...grants, ...others];
  const used = asksForUse(rows, ceilings)
    ? await usedOf(
        db,
        rows.map(({ id }) => id),
        except,
      )
    : new Map<string, never>();
  return compileDocument({
    id: document.id,
    revoked: document.revokedAt !== null,
    revokedAt: document.revokedAt,
    keyDestroyed: version.wrappedKey === null,
    ceilings,
    grants: [
      ...grants.map((grant) => toFacts(grant, used.get(grant.id))),
      ...others.map((grant) => toFactsAbove(grant, used.get(grant.id))),
      ...wider.map((grant) => toFacts(grant, {}, domain)),
      ...(supposed === null ? [] : [supposed]),
    ],
  });
}

/** The zone that days and hours are counted in for somebody: their own, or the organisation's. */
export async function zoneOf(db: Reading | Transaction, own: string | null): Promise<string> {
  return own ?? (await findOrganisation(db))?.zone ?? 'UTC';
}

/** How a reader asks: when, from where, and on what. */
export function circumstancesIn(
  deps: Pick<Deps, 'clock' | 'places'>,
  actor: ReaderActor,
  zone: string,
): Circumstances {
  return {
    now: deps.clock.now(),
    country: deps.places.find(actor.from.network)?.country ?? null,
    network: plainAddress(actor.from.network),
    zone,
    device: {
      id: actor.device,
      kept: actor.kept,
      provenAt: actor.provenAt,
      passkeyAt: actor.passkeyAt,
    },
  };
}
