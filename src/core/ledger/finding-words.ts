import { counted } from '@/core/base/counted';

/** What a verification found, in a sentence about the entry it stands at. */
export const findingWords = {
  otherSize: 'The checkpoint is for another size.',
  inDatabase: (what: string) => `in the database: ${what}`,
  keptOutside: (what: string) => `kept outside: ${what}`,
  personalDiffers: (field: string) => `its ${field} is not what was recorded`,
  personalMissing: (field: string) => `its ${field} is gone, and no entry says that it was erased`,
  countsDiffer: (kinds: readonly string[]) =>
    `the counts kept beside the ledger are not those of its entries: ${kinds.join(', ')}`,
  endDiffers: (size: number) =>
    `the stored end of the ledger is not its last entry: it says ${String(size)} entries`,
  endForeign:
    'the last entries, the checkpoints or the sums beside them were not written by this product: ' +
    'entries were added, taken away or rewritten since its last commit',
  rowForeign: (key: string, table: string) =>
    `${key} in ${table} was not written by this product as it stands`,
  moreForeign: (rows: number, table: string) =>
    `${counted(rows, 'more row', 'more rows')} in ${table} ${rows === 1 ? 'was' : 'were'} not`,
  rowsMissing: (table: string) =>
    `rows of ${table} were added, removed or put back to what they once were`,
  reported: 'this entry reports rows that were not written by this product',
  cutOff: (signed: number, here: number) =>
    `a signed checkpoint covers ${String(signed)} entries, and only ${String(here)} are here`,
  checkpointsGone: (checkpoints: number) =>
    `${counted(checkpoints, 'checkpoint that was', 'checkpoints that were')} kept outside ` +
    `${checkpoints === 1 ? 'is' : 'are'} gone from the database`,
  columnsDiffer: 'what lists show of it is not what its text says',
} as const;
