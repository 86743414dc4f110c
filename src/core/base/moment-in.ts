import type { Language } from '@/core/base/languages';
import { distanceText, momentText, spanParts } from '@/core/base/moment-text';
import { zoneFormat } from '@/core/base/zone-format';

const SHORT = { dateStyle: 'medium', timeStyle: 'short' } as const;
const shortIn: Readonly<Record<Exclude<Language, 'en'>, ReturnType<typeof zoneFormat>>> = {
  de: zoneFormat(SHORT, 'de'),
  fr: zoneFormat(SHORT, 'fr'),
  es: zoneFormat(SHORT, 'es'),
  ja: zoneFormat(SHORT, 'ja'),
};

/** A moment as it is written in a language: `31 Dec 2026 17:00`, `31.12.2026, 17:00`. */
export function momentIn(at: number, zone: string, language: Language): string {
  return language === 'en' ? momentText(at, zone) : shortIn[language](zone).format(at);
}

/** How far off a moment is, in a language: `36 days from now`, `in 36 Tagen`. */
export function distanceIn(at: number, now: number, language: Language): string {
  if (language === 'en') return distanceText(at, now);
  const { value, unit } = spanParts(at, now);
  return new Intl.RelativeTimeFormat(language, { numeric: 'always' }).format(
    at >= now ? value : -value,
    unit,
  );
}
