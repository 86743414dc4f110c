import { z } from 'zod';
import type { Watermark } from '@/core/watermark/layers';
import { watermarkProblem } from '@/core/watermark/read-layers';

/** A watermark as it is sent: every layer within its limits, every piece one that is known. */
export const watermarkInput = z.custom<Watermark>().superRefine((value, context) => {
  const problem = watermarkProblem(value);
  if (problem !== null) context.addIssue({ code: 'custom', message: problem });
});
