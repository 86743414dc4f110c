import type { Moment } from '@/core/base/time';
import type { TokenValues } from '@/core/watermark/tokens';

/**
 * What the pieces of a watermark say of one open. Somebody without a name goes by their address.
 *
 * @param zone the zone that date and time are told in
 */
export function markValues(
  about: Omit<TokenValues, 'date' | 'time'>,
  at: Moment,
  zone: string,
): TokenValues {
  return {
    ...about,
    name: about.name === '' ? about.address : about.name,
    date: new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeZone: zone }).format(at),
    time: new Intl.DateTimeFormat('en-GB', {
      hour: '2-digit',
      minute: '2-digit',
      timeZone: zone,
      timeZoneName: 'short',
    }).format(at),
  };
}
