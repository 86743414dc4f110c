import type { DocumentRow } from '@/contracts/document';
import type { ComposeStart } from '@/contracts/draft';
import { addressOfGroup } from '@/core/policy/addressee';
import type { Terms } from '@/core/policy/rights';
import { beyondLimits, beyondLines } from '@/core/policy/sender-limits';
import type { Wider } from '@/ui/compose/compose-check';
import type { RecipientDraft } from '@/ui/recipients/use-recipients';

type Composed = {
  readonly people: readonly RecipientDraft[];
  readonly wider: Wider;
  readonly documents: readonly DocumentRow[];
  readonly terms: Terms;
};
const OPEN_LINK = 'anyone with the link';

/** What of a dispatch goes beyond its sender's limits, with who set them and whom to ask. */
export function limitProblems(
  { limits, parents, now }: Pick<ComposeStart, 'limits' | 'parents' | 'now'>,
  { people, wider, documents, terms }: Composed,
): string[] {
  if (limits === null) return [];
  const names = new Map<string, string>(
    wider.groups.map(({ id, name }) => [addressOfGroup(id), `the group ${name}`]),
  );
  const addresses = [
    ...people.map(({ address }) => address),
    ...wider.domains.map(({ domain }) => domain),
    ...names.keys(),
    ...(wider.openLink ? [OPEN_LINK] : []),
  ];
  const beyond = beyondLimits(
    limits.limits,
    {
      addresses,
      documents,
      terms: [terms, ...people.flatMap((person) => (person.terms === null ? [] : [person.terms]))],
      givenAt: now,
    },
    new Map(Object.entries(parents)),
  );
  return beyondLines(
    beyond,
    (address) =>
      names.get(address) ?? (address.startsWith('@') ? `everyone at ${address.slice(1)}` : address),
  ).map((line) => `${line} ${limits.setBy} set it so: ask them.`);
}
