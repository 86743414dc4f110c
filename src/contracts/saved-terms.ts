import { z } from 'zod';
import { conditionsInput } from '@/contracts/conditions';
import { rightsInput, termsId } from '@/contracts/dispatch';
import { watermarkInput } from '@/contracts/watermark';
import type { CeilingRow } from '@/contracts/ceiling';
import type { DefaultsRow } from '@/contracts/defaults';
import type { FolderRow } from '@/contracts/folder';
import type { MarkingRow } from '@/contracts/marking';
import type { RuleRow } from '@/contracts/rules';
import type { TermsId } from '@/core/base/ids';
import type { SavedTerms } from '@/core/policy/saved-terms';

export const putTermsInput = z
  .object({
    id: termsId.nullable(),
    name: z.string().trim().min(1, 'the terms need a name').max(80),
    days: z.number().int().min(1).max(3_650).nullable(),
    watermark: watermarkInput,
    conditions: conditionsInput.optional(),
    /** The version that was seen; absent: whatever it is. */
    seen: z.number().int().optional(),
    /** Whether what was sent with them follows. */
    reachBack: z.boolean().optional(),
  })
  .and(rightsInput);
export type PutTermsInput = z.infer<typeof putTermsInput>;
export const previewTermsInput = z
  .object({
    id: termsId,
    days: z.number().int().min(1).max(3_650).nullable(),
    conditions: conditionsInput.optional(),
  })
  .and(rightsInput);
export type PreviewTermsInput = z.infer<typeof previewTermsInput>;
export const termsIdInput = z.object({ id: termsId });

export type SavedTermsRow = SavedTerms & {
  readonly id: TermsId;
  readonly name: string;
  readonly version: number;
  /** People who were given access with them that nobody has changed or revoked since. */ readonly uses: number;
  readonly changedBy: string;
  readonly changedAt: number;
};
export type TermsPage = {
  readonly terms: readonly SavedTermsRow[];
  readonly markings: readonly MarkingRow[];
  readonly folders: readonly FolderRow[];
  readonly ceilings: readonly CeilingRow[];
  readonly defaults: readonly DefaultsRow[];
  readonly rules: readonly RuleRow[];
};
