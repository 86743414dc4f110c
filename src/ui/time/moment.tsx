'use client';

import { useZone } from '@/ui/time/use-zone';
import { momentText, zoneName } from '@/ui/time/moment-words';

/** A moment in the zone of the person at the screen; the zone stands in the tooltip, and beside it where `named`. */
export function Moment({ at, named = false }: { readonly at: number; readonly named?: boolean }) {
  const zone = useZone();
  return (
    <time className="figure" dateTime={new Date(at).toISOString()} title={zone}>
      {momentText(at, zone)}
      {named ? ` ${zoneName(at, zone)}` : ''}
    </time>
  );
}
