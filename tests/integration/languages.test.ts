// In which language recipients are told what could not be done.
import { z } from 'zod';
import { pino } from 'pino';
import { describe, expect, test } from 'vitest';
import { LANGUAGES } from '@/core/base/languages';
import { requestCodeInput } from '@/contracts/reader';
import { PROBLEMS, type ProblemCode } from '@/contracts/problems';
import { respondError } from '@/server/http/respond';
import { ServiceError } from '@/server/services/base/errors';
import { ContentError } from '@/core/pages/errors';
import { STAFF } from '@/words/problem-text';

const log = pino({ enabled: false });

async function said(error: unknown, language: (typeof LANGUAGES)[number]): Promise<string> {
  const response = respondError(error, log, { audience: 'recipient', language });
  return ((await response.json()) as { error: { message: string } }).error.message;
}

describe.each(LANGUAGES.filter((language) => language !== 'en'))('in %s', (language) => {
  test('every problem of a recipient has its own sentence', async () => {
    const codes = (Object.keys(PROBLEMS) as ProblemCode[]).filter(
      (code) => PROBLEMS[code].to !== 'staff',
    );
    expect(codes.length).toBeGreaterThan(30);
    const fields = { reason: 'revoked', left: 2, retryAfter: 90 };
    for (const code of codes) {
      const reason = code === 'pass-on-refused' ? 'too-many' : 'revoked';
      const make = ServiceError as unknown as new (code: ProblemCode, fields: object) => Error;
      const error = new make(code, { ...fields, reason });
      expect({ code, said: await said(error, language) }).not.toEqual({
        code,
        said: await said(error, 'en'),
      });
    }
  });

  test('what was entered wrongly is said, by what it is', async () => {
    const wrong = requestCodeInput.safeParse({ token: null, address: 'no address' }).error;
    expect(await said(wrong, language)).not.toMatch(/check|email/i);
    const code = z.object({ code: z.string().min(6) }).safeParse({ code: '1' }).error;
    expect(await said(code, language)).not.toBe(await said(wrong, language));
  });

  test('a file or page that cannot be drawn, and a fault of ours', async () => {
    const error = new ContentError('PDF_TOO_DEMANDING');
    expect(await said(error, language)).not.toBe(error.message);
    expect(await said(new Error('inside'), language)).not.toMatch(/inside|Something/);
  });
});

test('staff are told in English, whatever their browser prefers', async () => {
  const response = respondError(new ContentError('PDF_LOCKED'), log, STAFF);
  expect(await response.json()).toMatchObject({
    error: { message: 'This PDF asks for a password. Save it without one and choose it again.' },
  });
});
