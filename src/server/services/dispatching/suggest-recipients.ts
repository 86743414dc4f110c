import 'server-only';
import { MOST_RECIPIENTS } from '@/core/compose/limits';
import type { PeopleAt, Suggestion } from '@/contracts/recipients';
import { domainOf } from '@/core/policy/address';
import {
  peopleOf,
  suggestedGroups,
  suggestedOrganisations,
  suggestedPeople,
} from '@/server/repositories/people/suggest-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { readWorkSettings } from '@/server/services/base/work-settings';

const MOST_PEOPLE = 12;
const MOST_OTHERS = 5;

/** Whom somebody may mean who typed a part of a name, address, organisation or group. */
export async function suggestRecipients(
  deps: Pick<Deps, 'db'>,
  _actor: StaffActor,
  { q }: { readonly q: string },
): Promise<{ readonly found: readonly Suggestion[] }> {
  const db = deps.db.read;
  const [people, organisations, groups, { ownDomains }] = await Promise.all([
    suggestedPeople(db, q, MOST_PEOPLE),
    suggestedOrganisations(db, q, MOST_OTHERS),
    suggestedGroups(db, q, MOST_OTHERS),
    readWorkSettings(db),
  ]);
  return {
    found: [
      ...people.map((person) => ({
        kind: 'person' as const,
        ...person,
        inside: ownDomains.includes(domainOf(person.address)),
      })),
      ...organisations.map((each) => ({ kind: 'organisation' as const, ...each })),
      ...groups.map((each) => ({ kind: 'group' as const, ...each })),
    ],
  };
}

/** Everybody at an organisation, to be addressed one by one; those who are blocked left out. */
export async function listPeopleAt(
  deps: Pick<Deps, 'db'>,
  _actor: StaffActor,
  { organisation }: { readonly organisation: string },
): Promise<PeopleAt> {
  return { people: await peopleOf(deps.db.read, organisation, MOST_RECIPIENTS) };
}
