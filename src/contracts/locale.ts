/** Whether a text names a time zone (IANA). */
export function isZone(text: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: text });
    return true;
  } catch {
    return false;
  }
}

/** Whether a text is a language tag (BCP 47). */
export function isLanguage(text: string): boolean {
  try {
    return Intl.getCanonicalLocales(text).length === 1;
  } catch {
    return false;
  }
}
