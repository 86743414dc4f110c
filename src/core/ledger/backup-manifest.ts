import { z } from 'zod';

/** What a backup says of itself, as its first file. */
export const backupManifest = z.object({
  format: z.literal(1),
  /** Milliseconds since the epoch. */
  madeAt: z.number().int(),
  publicUrl: z.string(),
  organisation: z.string(),
  /** Entries the ledger had. */
  entries: z.number().int(),
  blobs: z.number().int(),
});
export type BackupManifest = z.infer<typeof backupManifest>;
