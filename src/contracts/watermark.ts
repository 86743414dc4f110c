import { z } from 'zod';
import { MAX_LAYERS, type Watermark } from '@/core/watermark/layers';
import { watermarkProblem } from '@/core/watermark/read-layers';

/** A watermark as it is sent: every layer within its limits, every piece one that is known. */
export function watermarkOf(most: number) {
  return z.custom<Watermark>().superRefine((value, context) => {
    const problem = watermarkProblem(value, most);
    if (problem !== null) context.addIssue({ code: 'custom', message: problem });
  });
}

export const watermarkInput = watermarkOf(MAX_LAYERS);
