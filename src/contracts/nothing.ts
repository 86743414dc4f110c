import { z } from 'zod';

/** A call that needs no input. */
export const nothing = z.object({});
