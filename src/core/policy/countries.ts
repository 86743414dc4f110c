const names = new Intl.DisplayNames('en', { type: 'region', fallback: 'none' });

/** Whether this is an ISO 3166-1 alpha-2 code, one left to users (X A to X Z) included. */
export function isCountry(code: string): boolean {
  if (!/^[A-Z]{2}$/.test(code)) return false;
  return /^X[A-Z]$/.test(code) || names.of(code) !== undefined;
}
