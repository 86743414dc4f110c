import { z } from 'zod';
import { emailAddress } from '@/contracts/address';

/** Shortest password, in characters. */
export const MIN_PASSWORD = 12;
export const password = z
  .string()
  .min(MIN_PASSWORD, `at least ${String(MIN_PASSWORD)} characters`)
  .max(128);

/** Six figures; an empty field is no code. */
export const factorCode = z
  .string()
  .transform((text) => text.replaceAll(/\s/g, ''))
  .pipe(z.string().regex(/^(\d{6})?$/, 'the code has six digits'));
export const proofInput = z.object({
  password: z.string().min(1, 'your password is missing').max(128),
  code: factorCode.optional(),
});
export type ProofInput = z.infer<typeof proofInput>;
export const confirmFactorInput = z.object({
  secret: z.string().regex(/^[A-Z2-7]{32}$/, 'begin again'),
  seal: z.string().max(100),
  code: factorCode,
});
export type ConfirmFactorInput = z.infer<typeof confirmFactorInput>;
export const signInInput = z.object({
  email: z.string().trim().min(1, 'your email address is missing').max(254),
  password: z.string().min(1, 'your password is missing').max(128),
  code: factorCode.optional(),
});
export type SignInInput = z.infer<typeof signInInput>;

export const passwordMailInput = z.object({ email: emailAddress });
export const choosePasswordInput = z.object({ token: z.string().min(1).max(80), password });
export type ChoosePasswordInput = z.infer<typeof choosePasswordInput>;
/** The same as it is typed: twice. */
export const newPassword = choosePasswordInput
  .extend({ again: z.string() })
  .refine(({ password, again }) => password === again, {
    path: ['again'],
    message: 'the two passwords differ',
  });
