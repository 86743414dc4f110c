import 'server-only';
import type { DemoBar, Pretence } from '@/contracts/demo';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import { holds, type Role } from '@/core/policy/permissions';
import { viewDemo } from '@/server/services/demo/change-demo';
import { readWorkSettings } from '@/server/services/base/work-settings';
import type { Deps, StaffActor } from '@/server/services/base/deps';

/** What stands around every staff page. */
export async function viewShell(
  deps: Deps,
  actor: StaffActor,
  pretence: Pretence,
): Promise<{
  readonly name: string;
  readonly role: Role;
  readonly organisation: string;
  readonly demo: boolean;
  readonly reasonsAsked: boolean;
  readonly bar: DemoBar | null;
}> {
  const organisation = await findOrganisation(deps.db.read);
  return {
    name: actor.name,
    role: actor.role,
    organisation: organisation?.name ?? '',
    demo: organisation?.demo ?? false,
    reasonsAsked: (await readWorkSettings(deps.db.read)).reasonsAsked,
    bar: holds(actor.role, 'read-mailroom') ? await viewDemo(deps, pretence) : null,
  };
}
