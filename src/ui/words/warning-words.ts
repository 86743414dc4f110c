import type { WarningCode } from '@/core/insight/warnings';

function bytesText(detail: string): string {
  const gib = Number(detail) / 1024 ** 3;
  return gib >= 1 ? `${gib.toFixed(1)} GiB` : `${String(Math.round(gib * 1024))} MiB`;
}

/** What the person who runs this server has to see to: what is so, and what to do. */
export const warningWords: Record<
  WarningCode,
  (detail: string) => { readonly title: string; readonly next: string }
> = {
  'disk-low': (detail) => ({
    title: `The server’s disk is nearly full: ${bytesText(detail)} are left.`,
    next: 'Make room before nothing more can be protected.',
  }),
  'disk-full': (detail) => ({
    title: `The server’s disk is full: ${bytesText(detail)} are left.`,
    next: 'Nothing more is taken in. Revoking and reading go on for now. Make room at once.',
  }),
  'master-key-gone': (detail) => ({
    title: `The master key file ${detail} is gone.`,
    next: 'The server goes on with the key that it has read, and will not start again without the file. Put it back.',
  }),
  'seal-broken': (detail) => ({
    title: `Another program changed the database: ${detail}.`,
    next: 'What was changed opens nothing. Verify the ledger, and find out who can write to the database.',
  }),
  'ledger-end-foreign': () => ({
    title: 'The end of the ledger was not written by Embargo.',
    next: 'Verify the ledger, and find out who can write to the database.',
  }),
  'witness-ahead': (detail) => ({
    title:
      `The witness knows ${detail.split(' ')[0] ?? ''} entries of the ledger, and the database ` +
      `has ${detail.split(' ')[1] ?? ''}.`,
    next:
      'The database was put back to an earlier state. What was revoked since may be open ' +
      'again: restore a backup with the list of what ended.',
  }),
  'witness-key-differs': () => ({
    title: 'The ledger is signed with another key than the witness knows.',
    next: 'Verify the ledger against the witness file, and find out who can write to the database.',
  }),
  'clock-behind': (detail) => ({
    title: `The server’s clock is ${String(Math.round(Number(detail) / 60_000))} minutes behind the ledger.`,
    next: 'Access is decided by the ledger’s time until the clock is right. Set the clock.',
  }),
  'office-unusable': (detail) => ({
    title: `LibreOffice is switched on, and not used: ${detail}.`,
    next:
      'It would not be kept from the network and from the keys here. Word and PowerPoint files are shown by what ' +
      'is built in. See docs/operations.md.',
  }),
  'content-damaged': (detail) => ({
    title: `The stored content of ${detail} is damaged.`,
    next: 'It cannot be read whole. Restore it from a backup, or protect the file again.',
  }),
  'database-damaged': (detail) => ({
    title: `The database is damaged: ${detail}.`,
    next: 'Stop the server and restore a backup.',
  }),
};
