import { z } from 'zod';
import { termsInput, watermark } from '@/contracts/dispatch';
import type { MarkingRow } from '@/contracts/marking';
import { isId, type TermsId } from '@/core/base/ids';
import type { KeptTerms } from '@/core/policy/kept-terms';

const termsId = z.custom<TermsId>((value) => typeof value === 'string' && isId('terms', value), 'no such terms');

export const putTermsInput = z
  .object({ id: termsId.nullable(), name: z.string().trim().min(1, 'the terms need a name').max(80), days: z.number().int().min(1).max(3_650).nullable(), watermark })
  .and(termsInput.transform(({ rights, prints }) => ({ rights, prints })));
export type PutTermsInput = z.infer<typeof putTermsInput>;
export const termsIdInput = z.object({ id: termsId });

export type KeptTermsRow = KeptTerms & { readonly id: TermsId; readonly name: string; readonly changedBy: string; readonly changedAt: number };
export type TermsPage = { readonly terms: readonly KeptTermsRow[]; readonly markings: readonly MarkingRow[] };
