import 'server-only';
import { findOrganisation } from '@/server/repositories/organisation-repository';
import type { Role } from '@/core/policy/powers';
import type { Deps, StaffActor } from '@/server/services/deps';

/** What stands around every staff page. */
export async function viewShell(deps: Deps, actor: StaffActor): Promise<{ readonly name: string; readonly role: Role; readonly organisation: string; readonly demo: boolean }> {
  const organisation = await findOrganisation(deps.db.read);
  return { name: actor.name, role: actor.role, organisation: organisation?.name ?? '', demo: organisation?.demo ?? false };
}
