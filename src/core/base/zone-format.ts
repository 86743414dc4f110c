/** Whether a text names a time zone (IANA). */
export function isZone(text: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: text });
    return true;
  } catch {
    return false;
  }
}

/** Zones whose formats are kept: there are fewer than a thousand names, and aliases are as good as any. */
const MOST = 1_000;

/**
 * Formats of one kind, by zone. Making one takes a hundred times as long as using it, so each is
 * made once.
 *
 * @returns what gives the format of a zone, and throws a RangeError where the zone is unknown
 */
export function zoneFormat(
  options: Omit<Intl.DateTimeFormatOptions, 'timeZone'>,
  locale = 'en-GB',
): (zone: string) => Intl.DateTimeFormat {
  const made = new Map<string, Intl.DateTimeFormat>();
  return (zone) => {
    const known = made.get(zone);
    if (known !== undefined) return known;
    const format = new Intl.DateTimeFormat(locale, { ...options, timeZone: zone });
    if (made.size >= MOST) made.clear();
    made.set(zone, format);
    return format;
  };
}
