'use client';

import { useZone } from '@/ui/time/use-zone';
import { zoneName } from '@/core/base/moment-text';
import { momentIn } from '@/core/base/moment-in';
import { useWords } from '@/ui/words/use-words';

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
  const { language } = useWords();
  const text = momentIn(at, zone, language);
  return (
    <time
      className="figure"
      dateTime={new Date(at).toISOString()}
      title={brief ? `${text} ${zone}` : zone}
    >
      {brief ? text.replace(/ \d{4} /, ' ') : text}
      {named ? ` ${zoneName(at, zone)}` : ''}
    </time>
  );
}
