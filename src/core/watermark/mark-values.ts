import { zoneFormat } from '@/core/base/zone-format';
import type { Moment } from '@/core/base/time';
import type { TokenValues } from '@/core/watermark/tokens';

const dateIn = zoneFormat({ dateStyle: 'medium' });
const timeIn = zoneFormat({ hour: '2-digit', minute: '2-digit', timeZoneName: 'short' });

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
    date: dateIn(zone).format(at),
    time: timeIn(zone).format(at),
  };
}
