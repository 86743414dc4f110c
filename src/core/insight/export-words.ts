import { toUtcText } from '@/core/base/time';

const orNone = (text: string): string => (text === '' ? 'none' : text);

/** The first line of the ledger as CSV: how it was made, and what it should hold. */
export function ledgerHeading({
  now,
  zone,
  filter,
  rows,
  kinds,
}: {
  readonly now: number;
  readonly zone: string;
  readonly filter: string;
  readonly rows: number;
  readonly kinds: string;
}): string {
  return (
    `# Embargo ledger; exported ${toUtcText(now)}; times in UTC; days in ${zone}; ` +
    `filter: ${orNone(filter)}; rows: ${String(rows)}; of these: ${orNone(kinds)}`
  );
}

/** The first line of the opens as CSV. */
export function opensHeading({
  now,
  zone,
  filter,
  totals,
}: {
  readonly now: number;
  readonly zone: string;
  readonly filter: string;
  readonly totals: {
    readonly opens: number;
    readonly openedBy: number;
    readonly refused: number;
    readonly refusedTo: number;
    readonly neverOpened: number;
  };
}): string {
  return (
    `# Embargo opens; exported ${toUtcText(now)}; times in UTC; days in ${zone}; ` +
    `filter: ${orNone(filter)}; opens: ${String(totals.opens)} by ` +
    `${String(totals.openedBy)} people; refused: ${String(totals.refused)} to ` +
    `${String(totals.refusedTo)} people; never opened anything: ${String(totals.neverOpened)} people`
  );
}
