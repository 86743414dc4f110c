/** Whether a text is a language tag (BCP 47). */
export function isLanguage(text: string): boolean {
  try {
    return Intl.getCanonicalLocales(text).length === 1;
  } catch {
    return false;
  }
}
