import 'server-only';
import type { Json } from '@/core/odrl/report';
import { ServiceError } from '@/server/services/base/errors';

/** The policies of a file, as `read` understands them. @throws ServiceError `INVALID` where it is no such file */
export function policiesOf<T>(text: string, read: (document: Json) => T[]): T[] {
  let document: Json;
  try {
    document = JSON.parse(text) as Json;
  } catch {
    throw new ServiceError('file-no-json');
  }
  const policies = read(document);
  if (policies.length === 0) throw new ServiceError('file-no-odrl');
  return policies;
}
