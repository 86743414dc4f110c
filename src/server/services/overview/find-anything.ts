import 'server-only';
import type { FindPage } from '@/contracts/find';
import { findByText } from '@/server/repositories/overview/find-repository';
import type { Deps } from '@/server/services/base/deps';

const MOST = 25;

/** Documents, people and dispatches whose names hold a text. */
export async function findAnything(deps: Deps, { q }: { readonly q: string }): Promise<FindPage> {
  if (q === '') return { wanted: q, documents: [], people: [], dispatches: [] };
  const [documents, people, dispatches] = await findByText(deps.db.read, q, MOST);
  return {
    wanted: q,
    documents: documents.map(({ id, title, reference }) => ({
      href: `/documents/${id}`,
      title,
      under: reference,
    })),
    people: people.map(({ id, name, address, organisation }) => ({
      href: `/people?person=${id}`,
      title: name === '' ? address : name,
      under: organisation === '' ? address : `${organisation}, ${address}`,
    })),
    dispatches: dispatches.map(({ id, subject, reference }) => ({
      href: `/dispatches/${id}`,
      title: subject,
      under: reference,
    })),
  };
}
