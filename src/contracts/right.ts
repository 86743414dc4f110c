import { z } from 'zod';
import { OFFERED_RIGHTS, type Right } from '@/core/policy/rights';

type Offered = (typeof OFFERED_RIGHTS)[number];

/** A right that can be given today; anyone who states another one is told so. */
export const offeredRight: z.ZodType<Offered, Right> = z.enum(OFFERED_RIGHTS);
