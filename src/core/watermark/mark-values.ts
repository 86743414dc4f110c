import { zoneFormat } from '@/core/base/zone-format';
import type { Moment } from '@/core/base/time';
import type { PieceValues } from '@/core/watermark/pieces';

const dateIn = zoneFormat({ dateStyle: 'medium' });
const timeIn = zoneFormat({ hour: '2-digit', minute: '2-digit', timeZoneName: 'short' });

/** What is known of an open when it begins; the page and the number of a copy are known when they are drawn. */
export type OpenFacts = Omit<PieceValues, 'date' | 'time' | 'page' | 'copy'> & {
  readonly name: string;
  readonly address: string;
};

/**
 * What the pieces of a watermark say of one open. Somebody without a name goes by their address.
 *
 * @param zone the zone that date and time are told in
 */
export function markValues(about: OpenFacts, at: Moment, zone: string): PieceValues {
  return {
    ...about,
    name: about.name === '' ? about.address : about.name,
    date: dateIn(zone).format(at),
    time: timeIn(zone).format(at),
  };
}
