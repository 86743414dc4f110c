import 'server-only';
import type { RecipientCheck } from '@/contracts/dispatch';
import { normaliseAddress } from '@/core/policy/address';
import { looksLike } from '@/core/policy/look-alike';
import { allRecipients } from '@/server/repositories/people-repository';
import type { Deps, StaffActor } from '@/server/services/deps';

/** What is known about addresses before anything is sent: who they are, and whether one is a slip away from somebody known. */
export async function checkRecipients(deps: Deps, _actor: StaffActor, { addresses }: { readonly addresses: readonly string[] }): Promise<{ readonly checks: readonly RecipientCheck[] }> {
  const people = new Map((await allRecipients(deps.db.read)).map((person) => [person.address, person]));
  const known = [...people.keys()];
  return {
    checks: addresses.flatMap((text) => {
      const address = normaliseAddress(text);
      if (address === null) return [];
      const person = people.get(address);
      return [{ address, known: person === undefined ? null : { name: person.name, organisation: person.organisation, blocked: person.blocked }, looksLike: person === undefined ? looksLike(address, known) : null }];
    }),
  };
}
