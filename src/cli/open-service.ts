import { databaseFile, hasDatabase } from '@/server/db/database-file';
import { ConfigError, type Config } from '@/server/config/env';
import { createContainer, type Container } from '@/server/container';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import {
  findStaffByEmail,
  listStaff,
  findStaff,
  type StaffRecord,
} from '@/server/repositories/staff/staff-repository';
import type { StaffActor } from '@/server/services/base/deps';
import { UsageError } from '@/cli/command';

/** Everything a use case needs, beside a server that may be running. @throws ConfigError where nothing was set up */
export async function withService<T>(
  config: Config,
  use: (container: Container) => Promise<T>,
): Promise<T> {
  if (!hasDatabase(config.databaseUrl))
    throw new ConfigError(
      `There is no database at ${databaseFile(config.databaseUrl)}. Set DATA_DIR to ` +
        'the folder the server uses.',
    );
  const container = await createContainer(
    { ...config, logLevel: 'silent' },
    { beside: true, threads: 1 },
  );
  try {
    if ((await findOrganisation(container.deps.db.read)) === null)
      throw new ConfigError(
        'Nobody has set Embargo up on this database yet. Start it and open its first page.',
      );
    return await use(container);
  } finally {
    await container.close();
  }
}

/** Who the call acts for: who is named, or the only administrator there is. @throws UsageError */
export async function actorNamed(
  { deps }: Container,
  email: string | undefined,
): Promise<StaffActor> {
  const found =
    email === undefined
      ? await onlyAdministrator(deps)
      : await findStaffByEmail(deps.db.read, email);
  if (found?.disabledAt !== null)
    throw new UsageError(
      email === undefined
        ? 'There are several administrators: say with --as ADDRESS who you are.'
        : `Nobody on the staff has the email address ${email}.`,
    );
  // Anyone who can run this can read the database and its keys: there is nothing left to prove.
  return {
    kind: 'staff',
    id: found.id,
    name: found.name,
    email: found.email,
    role: found.role,
    session: 'command line',
    proven: true,
    from: { network: 'this machine', agent: 'command line' },
  };
}

async function onlyAdministrator(deps: Container['deps']): Promise<StaffRecord | null> {
  const administrators = (await listStaff(deps.db.read))
    .map(({ row }) => row)
    .filter(({ role, disabledAt }) => role === 'administrator' && disabledAt === null);
  const [only] = administrators;
  return only === undefined || administrators.length > 1 ? null : findStaff(deps.db.read, only.id);
}
