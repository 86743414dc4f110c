import { z } from 'zod';
import type { ConditionName, Conditions } from '@/core/policy/conditions';
import { normaliseDomain } from '@/core/policy/address';
import { isCountry } from '@/core/policy/countries';
import { isNetwork } from '@/core/policy/networks';
import { DAY, MINUTE } from '@/core/base/time';

export const networksInput = z
  .array(
    z
      .string()
      .trim()
      .superRefine((text, context) => {
        if (!isNetwork(text))
          context.addIssue({
            code: 'custom',
            message: `“${text.slice(0, 60)}” is not an IP address range: write 192.0.2.0/24 or 2001:db8::/32`,
          });
      }),
  )
  .min(1, 'enter at least one IP address range')
  .max(50);
export const countriesInput = z
  .array(
    z
      .string()
      .trim()
      .toUpperCase()
      .superRefine((code, context) => {
        if (!isCountry(code))
          context.addIssue({
            code: 'custom',
            message: `“${code.slice(0, 20)}” is not a country code`,
          });
      }),
  )
  .min(1, 'enter at least one country')
  .max(250);

/** A domain, with or without the sign before it. */
export const domainInput = z.string().transform((text, context) => {
  const domain = normaliseDomain(text.trim().startsWith('@') ? text : `@${text.trim()}`);
  if (domain === null)
    context.addIssue({
      code: 'custom',
      message: `“${text.slice(0, 80)}” is not a domain: write it as @yard.example`,
    });
  return domain ?? z.NEVER;
});

const weekday = z.union([
  z.literal(1),
  z.literal(2),
  z.literal(3),
  z.literal(4),
  z.literal(5),
  z.literal(6),
  z.literal(7),
]);
const minute = z.number().int().min(0).max(1_440);

/** How long something may be readable on a person's own machine without asking again, in ms. */
export const offlineInput = z
  .number()
  .int()
  .min(0)
  .max(90 * DAY);

const fields = {
  opens: z.number().int().min(1).max(9_999).nullish(),
  within: z
    .number()
    .int()
    .min(MINUTE)
    .max(3_650 * DAY)
    .nullish(),
  countries: countriesInput.nullish(),
  networks: networksInput.nullish(),
  hours: z
    .object({
      days: z.array(weekday).min(1, 'choose at least one day').max(7),
      from: minute,
      to: minute,
    })
    .nullish(),
  rememberedDevice: z.boolean().nullish(),
  devices: z.number().int().min(1).max(99).nullish(),
  passkey: z.boolean().nullish(),
  proveEvery: z
    .number()
    .int()
    .min(5 * MINUTE)
    .max(365 * DAY)
    .nullish(),
  offline: offlineInput.nullish(),
  captureDeterrent: z.boolean().nullish(),
  passOn: z
    .strictObject({
      people: z.number().int().min(1).max(999),
      domains: z.array(domainInput).min(1).max(50).nullable(),
      steps: z.number().int().min(1).max(9),
    })
    .nullish(),
} satisfies { readonly [Name in ConditionName]-?: z.ZodType<Conditions[Name]> };

/** What must hold besides the window. An unknown condition is an error, for it could never be met. */
export const conditionsInput = z.strictObject(fields).transform((given): Conditions | undefined => {
  const set = Object.entries(given).filter(([, value]) => value != null && value !== false);
  return set.length === 0 ? undefined : Object.fromEntries(set);
});
