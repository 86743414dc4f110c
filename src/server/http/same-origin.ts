import 'server-only';
import { ServiceError } from '@/server/services/base/errors';

/**
 * Refuses a change that another site asked for: a browser says where a request comes from in
 * `Origin` and `Sec-Fetch-Site`, and a page cannot alter either.
 *
 * @throws ServiceError `WRONG_ORIGIN`
 */
export function checkOrigin(request: Request, publicUrl: string): void {
  if (request.method === 'GET' || request.method === 'HEAD') return;
  const origin = request.headers.get('origin');
  const site = request.headers.get('sec-fetch-site');
  const own = origin === new URL(publicUrl).origin;
  if (!own || (site !== null && site !== 'same-origin')) throw new ServiceError('wrong-origin');
}
