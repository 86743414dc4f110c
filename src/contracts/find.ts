import { z } from 'zod';

export const findInput = z.object({ q: z.string().trim().max(120).default('') });

export type Found = { readonly href: string; readonly title: string; readonly under: string };
export type FindPage = {
  readonly wanted: string;
  readonly documents: readonly Found[];
  readonly people: readonly Found[];
  readonly dispatches: readonly Found[];
};
