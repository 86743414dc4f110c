/** What the operator of this server has to see to. `grave`: nothing, or not everything, can be served until then. */
export const WARNINGS = {
  'disk-low': { grave: false },
  'disk-full': { grave: true },
  'master-key-gone': { grave: true },
  'seal-broken': { grave: false },
  'ledger-end-foreign': { grave: false },
  'witness-ahead': { grave: false },
  'witness-key-differs': { grave: false },
  'clock-behind': { grave: false },
  'office-unusable': { grave: false },
  'content-damaged': { grave: false },
  'database-damaged': { grave: true },
} as const satisfies Record<string, { readonly grave: boolean }>;
export type WarningCode = keyof typeof WARNINGS;

/** `detail`: names and figures, no sentence. */
export type Warning = { readonly code: WarningCode; readonly detail: string };
