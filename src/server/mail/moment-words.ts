import type { Language } from '@/core/base/languages';
import { zoneFormat } from '@/core/base/zone-format';

const LONG = { dateStyle: 'long', timeStyle: 'short' } as const;
const longIn: Readonly<Record<Language, ReturnType<typeof zoneFormat>>> = {
  en: zoneFormat(LONG),
  de: zoneFormat(LONG, 'de'),
  fr: zoneFormat(LONG, 'fr'),
  es: zoneFormat(LONG, 'es'),
  ja: zoneFormat(LONG, 'ja'),
};

/** A moment in words, with its zone: `31 December 2026, 17:00 (Europe/Oslo)`. */
export function momentWords(moment: number, zone: string, language: Language = 'en'): string {
  return `${longIn[language](zone).format(moment)} (${zone})`;
}
