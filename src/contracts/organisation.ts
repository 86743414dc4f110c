import { z } from 'zod';
import { isPublicKey } from '@/core/age/public-key';
import { isZone } from '@/core/base/zone-format';
import { password } from '@/contracts/identity';
import { normaliseAddress } from '@/core/policy/address';

export const setUpInput = z.object({
  token: z.string().min(1),
  organisation: z.string().trim().min(1, 'the organisation needs a name').max(120),
  zone: z.string().refine(isZone, 'this is not a time zone'),
  name: z.string().trim().min(1, 'your name is missing').max(120),
  email: z
    .string()
    .refine((text) => normaliseAddress(text) !== null, 'this is not an email address'),
  password,
  /** Public half only; the private half never leaves the administrator's browser. */
  recoveryKey: z.string().refine(isPublicKey, 'this is not a public key').nullable(),
});
export type SetUpInput = z.infer<typeof setUpInput>;

/** The same as it is filled in on the first visit, which goes on with a recovery key alone. */
export const setUpForm = setUpInput.refine(({ recoveryKey }) => recoveryKey !== null, {
  path: ['recoveryKey'],
  message:
    'make the recovery key, store it and enter it again first: without it, the files are lost ' +
    'if this server is lost',
});
