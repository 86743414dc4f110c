import 'server-only';
import type { AddresseesChecked } from '@/contracts/dispatch';
import { domainOf, normaliseAddress, normaliseDomain } from '@/core/policy/address';
import { looksLike } from '@/core/policy/look-alike';
import { isPublicMail } from '@/server/directory/public-mail';
import { allRecipients } from '@/server/repositories/people/people-repository';
import { organisationAt } from '@/server/repositories/access/wider-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';

/**
 * What is known about addresses before anything is sent: who they are, whether one is a slip away
 * from somebody known, and of domains who is known there.
 */
export async function checkRecipients(
  deps: Deps,
  _actor: StaffActor,
  {
    addresses,
    domains,
  }: { readonly addresses: readonly string[]; readonly domains: readonly string[] },
): Promise<AddresseesChecked> {
  const people = new Map(
    (await allRecipients(deps.db.read)).map((person) => [person.address, person]),
  );
  const known = [...people.keys()];
  const found = [...new Set(domains.map(normaliseDomain))].filter((domain) => domain !== null);
  return {
    domains: await Promise.all(
      found.map(async (domain) => ({
        domain,
        organisation: await organisationAt(deps.db.read, domain),
        known: known.filter((address) => domainOf(address) === domain).length,
        publicMail: isPublicMail(domain.slice(1)),
      })),
    ),
    checks: addresses.flatMap((text) => {
      const address = normaliseAddress(text);
      if (address === null) return [];
      const person = people.get(address);
      return [
        {
          address,
          known:
            person === undefined
              ? null
              : { name: person.name, organisation: person.organisation, blocked: person.blocked },
          looksLike: person === undefined ? looksLike(address, known) : null,
          publicMail: isPublicMail(domainOf(address).slice(1)),
        },
      ];
    }),
  };
}
