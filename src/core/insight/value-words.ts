/** What stands beside a value that the ledger can be filtered by. */
export const valueWords = {
  version: (title: string, number: number) => `${title}, version ${String(number)}`,
  thisVersion: 'this version only',
  didIt: (email: string) => `did it; ${email}`,
  didItThemselves: 'did it themselves',
  deviceOf: (address: string) => `of ${address}`,
} as const;
