import 'server-only';
import { addresseeTitle } from '@/core/policy/addressee-name';
import { bareDomain } from '@/core/policy/address';
import { newId, type DispatchId, type RecipientId } from '@/core/base/ids';
import { addressOfGroup, addressOfLink, type AddresseeKind } from '@/core/policy/addressee';
import type { DispatchInput } from '@/contracts/dispatch';
import type { Transaction } from '@/server/db/database';
import { isPublicMail } from '@/server/directory/public-mail';
import { insertRecipients } from '@/server/repositories/people/recipient-repository';
import { listGroups, membersOf } from '@/server/repositories/people/group-repository';
import { findRecipientByAddress } from '@/server/repositories/reading/reader-repository';
import { organisationAt } from '@/server/repositories/access/wider-repository';
import type { Deps } from '@/server/services/base/deps';
import { needOurs } from '@/server/services/base/trusted-rows';
import { ServiceError } from '@/server/services/base/errors';

type Row = { readonly id: RecipientId; readonly address: string };
/** What may be an addressee's own: terms, the saved terms that they are, and documents left away. */
type OwnTerms = Pick<DispatchInput['recipients'][number], 'terms' | 'kept' | 'without'>;

async function settle(
  deps: Pick<Deps, 'random'>,
  tx: Transaction,
  kind: AddresseeKind,
  {
    address,
    name,
    organisation,
  }: { readonly address: string; readonly name: string; readonly organisation: string },
  now: number,
): Promise<Row> {
  const known = await findRecipientByAddress(tx, address);
  if (known !== null) return known;
  const row = {
    id: newId('recipient', deps.random),
    kind,
    address,
    name,
    organisation,
    createdAt: now,
  };
  await insertRecipients(tx, [row]);
  return row;
}

/** @throws ServiceError `INVALID` where everybody can have an address at it */
async function settleDomain(
  deps: Pick<Deps, 'random'>,
  tx: Transaction,
  domain: string,
  now: number,
): Promise<Row> {
  if (isPublicMail(bareDomain(domain))) throw new ServiceError('public-domain', { domain });
  const name = addresseeTitle({ kind: 'domain', name: '', address: domain });
  const organisation = await organisationAt(tx, domain);
  return settle(deps, tx, 'domain', { address: domain, name, organisation }, now);
}

function settleLink(
  deps: Pick<Deps, 'random'>,
  tx: Transaction,
  dispatch: DispatchId,
  now: number,
): Promise<Row> {
  const name = addresseeTitle({ kind: 'link', name: '', address: '' });
  const about = { address: addressOfLink(dispatch), name, organisation: '' };
  return settle(deps, tx, 'link', about, now);
}

/** What stands for many, with what is its own. */
type Wider = Row & { readonly own: OwnTerms };
/** Somebody in a group, by which they are given what it is given. */
type Member = Row & {
  readonly name: string;
  readonly organisation: string;
  readonly zone: string | null;
  readonly language: string | null;
  readonly through: RecipientId;
  readonly own: OwnTerms;
};

/**
 * What is addressed as a whole, as rows, and who is in the groups now and not listed by themselves:
 * each is given it at once, and anyone who joins later by joining.
 *
 * @throws ServiceError `NOT_FOUND`, `CONFLICT`, `INVALID` for a domain where everybody can have an
 * address
 */
export async function settleWider(
  deps: Pick<Deps, 'random' | 'integrity'>,
  tx: Transaction,
  {
    groups = [],
    domains = [],
    openLink = null,
  }: Pick<DispatchInput, 'groups' | 'domains' | 'openLink'>,
  dispatch: DispatchId,
  listed: ReadonlySet<RecipientId>,
  now: number,
): Promise<{ readonly wider: readonly Wider[]; readonly members: readonly Member[] }> {
  const wider: Wider[] = [];
  for (const own of new Map(domains.map((each) => [each.domain, each])).values())
    wider.push({ ...(await settleDomain(deps, tx, own.domain, now)), own });
  if (openLink !== null)
    wider.push({ ...(await settleLink(deps, tx, dispatch, now)), own: openLink });
  const wanted = new Map(groups.map((each) => [each.id, each]));
  const known = wanted.size === 0 ? [] : await listGroups(tx);
  const people = wanted.size === 0 ? [] : await membersOf(tx, [...wanted.keys()]);
  // Anyone who was put into a group by another program is given nothing.
  await needOurs(deps, tx, {
    group_members: [...wanted.keys()],
    recipients: people.map(({ person }) => person.id),
  });
  const taken = new Set(listed);
  const members: Member[] = [];
  for (const [id, own] of wanted) {
    const group = known.find((each) => each.id === id);
    if (group === undefined) throw new ServiceError('groups-gone');
    const row = await settle(
      deps,
      tx,
      'group',
      { address: addressOfGroup(id), name: group.name, organisation: '' },
      now,
    );
    wider.push({ ...row, own });
    const fresh = people.filter(({ group: of, person }) => of === id && !taken.has(person.id));
    for (const { person } of fresh) {
      taken.add(person.id);
      const { id: member, address, name, organisation, zone, language } = person;
      const about = { id: member, address, name, organisation, zone, language };
      members.push({ ...about, through: row.id, own });
    }
  }
  return { wider, members };
}
