import { z } from 'zod';
import { normaliseAddress } from '@/core/policy/address';

/** An email address as somebody typed it, in one spelling. */
export const emailAddress = z.string().transform((text, context) => {
  const address = normaliseAddress(text);
  if (address === null)
    context.addIssue({ code: 'custom', message: 'this is not an email address' });
  return address ?? z.NEVER;
});
