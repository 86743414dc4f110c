import type { z } from 'zod';

/** A contract whose fields a form fills: what is typed, and what is sent. */
export type FormSchema<I, O> = z.ZodType<O, I>;
