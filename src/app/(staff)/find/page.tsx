import { findInput } from '@/contracts/find';
import { loadForStaff } from '@/server/http/handle';
import { findAnything } from '@/server/services/overview/find-anything';
import { FindView } from '@/ui/find/find-view';

export default async function FindRoute({
  searchParams,
}: {
  readonly searchParams: Promise<Record<string, string>>;
}) {
  const given = await searchParams;
  return (
    <FindView
      page={await loadForStaff('look', (deps) => findAnything(deps, findInput.parse(given)))}
    />
  );
}
