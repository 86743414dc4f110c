import * as access from '@/server/db/schema/access';
import * as dispatching from '@/server/db/schema/dispatching';
import * as documents from '@/server/db/schema/documents';
import * as ledger from '@/server/db/schema/ledger';
import * as mailing from '@/server/db/schema/mailing';
import * as organisation from '@/server/db/schema/organisation';
import * as people from '@/server/db/schema/people';
import * as policy from '@/server/db/schema/policy';
import * as reading from '@/server/db/schema/reading';
import * as staff from '@/server/db/schema/staff';

/** Every table, for what looks at the database as a whole. Moments are milliseconds since the epoch throughout. */
export const tables = {
  ...access,
  ...dispatching,
  ...documents,
  ...ledger,
  ...mailing,
  ...organisation,
  ...people,
  ...policy,
  ...reading,
  ...staff,
};
