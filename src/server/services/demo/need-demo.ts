import 'server-only';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import type { Deps } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';

/** The mailroom exists on a database that was made as a demo, and nowhere else. */
export async function needDemo(deps: Deps): Promise<void> {
  if ((await findOrganisation(deps.db.read))?.demo !== true) throw new ServiceError('no-page');
}
