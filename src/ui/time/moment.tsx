'use client';

import { useZone } from '@/ui/time/use-zone';
import { momentText, zoneName } from '@/core/base/moment-text';

/**
 * A moment in the zone of the person at the screen; the zone stands in the tooltip, and beside it
 * where `named`; `brief` leaves the year to the tooltip.
 */
export function Moment({
  at,
  named = false,
  brief = false,
}: {
  readonly at: number;
  readonly named?: boolean;
  readonly brief?: boolean;
}) {
  const zone = useZone();
  return (
    <time
      className="figure"
      dateTime={new Date(at).toISOString()}
      title={brief ? `${momentText(at, zone)} ${zone}` : zone}
    >
      {brief ? momentText(at, zone).replace(/ \d{4} /, ' ') : momentText(at, zone)}
      {named ? ` ${zoneName(at, zone)}` : ''}
    </time>
  );
}
