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
type Member = Row & { readonly zone: string | null; readonly through: RecipientId };

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
    openLink = false,
  }: Pick<DispatchInput, 'groups' | 'domains' | 'openLink'>,
  dispatch: DispatchId,
  listed: ReadonlySet<RecipientId>,
  now: number,
): Promise<{ readonly wider: readonly Row[]; readonly members: readonly Member[] }> {
  const wider: Row[] = [];
  for (const domain of new Set(domains)) wider.push(await settleDomain(deps, tx, domain, now));
  if (openLink) wider.push(await settleLink(deps, tx, dispatch, now));
  const ids = [...new Set(groups)];
  const known = ids.length === 0 ? [] : await listGroups(tx);
  const people = ids.length === 0 ? [] : await membersOf(tx, ids);
  // Anyone who was put into a group by another program is given nothing.
  await needOurs(deps, tx, {
    group_members: ids,
    recipients: people.map(({ person }) => person.id),
  });
  const taken = new Set(listed);
  const members: Member[] = [];
  for (const id of ids) {
    const group = known.find((each) => each.id === id);
    if (group === undefined) throw new ServiceError('groups-gone');
    const row = await settle(
      deps,
      tx,
      'group',
      { address: addressOfGroup(id), name: group.name, organisation: '' },
      now,
    );
    wider.push(row);
    const fresh = people.filter(({ group: of, person }) => of === id && !taken.has(person.id));
    for (const { person } of fresh) {
      taken.add(person.id);
      members.push({ id: person.id, address: person.address, zone: person.zone, through: row.id });
    }
  }
  return { wider, members };
}
