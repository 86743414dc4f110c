import { peopleInput } from '@/contracts/people';
import { loadForStaff } from '@/server/http/handle';
import { listPeople, viewPerson } from '@/server/services/people/manage-people';
import { PeopleView } from '@/ui/people/people-view';

export default async function PeoplePage({
  searchParams,
}: {
  readonly searchParams: Promise<Record<string, string>>;
}) {
  const given = await searchParams;
  const loaded = await loadForStaff('look', async (deps, actor) => {
    const { person, ...filter } = peopleInput.parse(given);
    return {
      filter,
      page: await listPeople(deps, actor, filter),
      person: person === undefined ? null : await viewPerson(deps, actor, { id: person }),
      now: deps.clock.now(),
    };
  });
  return <PeopleView {...loaded} />;
}
