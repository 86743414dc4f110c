import 'server-only';
import type { AddresseesChecked } from '@/contracts/recipients';
import { domainOf, normaliseAddress, normaliseDomain } from '@/core/policy/address';
import { slipFinder } from '@/core/policy/look-alike';
import { isPublicMail } from '@/server/directory/public-mail';
import { allRecipients } from '@/server/repositories/people/people-repository';
import { organisationAt } from '@/server/repositories/access/wider-repository';
import { aidsFor } from '@/server/repositories/reading/aids-repository';
import { lastSent } from '@/server/repositories/people/suggest-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { readWorkSettings } from '@/server/services/base/work-settings';

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
  const slipOf = slipFinder(known);
  const asked = addresses.flatMap((text) => normaliseAddress(text) ?? []);
  const [{ ownDomains }, sentAt] = await Promise.all([
    readWorkSettings(deps.db.read),
    lastSent(deps.db.read, asked),
  ]);
  const aided = new Set(
    (
      await aidsFor(
        deps.db.read,
        asked.flatMap((address) => people.get(address)?.id ?? []),
      )
    ).map(({ recipientId }) => recipientId),
  );
  const isInside = (domain: string): boolean => ownDomains.includes(domain);
  const found = [...new Set(domains.map(normaliseDomain))].filter((domain) => domain !== null);
  return {
    domains: await Promise.all(
      found.map(async (domain) => ({
        domain,
        organisation: await organisationAt(deps.db.read, domain),
        known: known.filter((address) => domainOf(address) === domain).length,
        publicMail: isPublicMail(domain.slice(1)),
        inside: isInside(domain),
      })),
    ),
    checks: asked.map((address) => {
      const person = people.get(address);
      return {
        address,
        known:
          person === undefined
            ? null
            : {
                name: person.name,
                organisation: person.organisation,
                blocked: person.blocked,
                readingAids: aided.has(person.id),
                lastSentAt: sentAt.get(address) ?? null,
              },
        looksLike: person === undefined ? slipOf(address) : null,
        publicMail: isPublicMail(domainOf(address).slice(1)),
        inside: isInside(domainOf(address)),
      };
    }),
  };
}
