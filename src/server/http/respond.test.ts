import { pino } from 'pino';
import { expect, test } from 'vitest';
import { respondError } from '@/server/http/respond';
import { STAFF } from '@/words/problem-text';

function answered(error: unknown) {
  const lines: string[] = [];
  const log = pino({}, { write: (line: string) => void lines.push(line) });
  const { status } = respondError(error, log, STAFF);
  return { status, lines };
}

test('who goes away while something is drawn for them is no fault of the server', () => {
  const { status, lines } = answered(AbortSignal.abort().reason);
  expect([status, lines]).toEqual([499, []]);
});

test('a fault is written down by where it happened, and not by what it said', () => {
  const { status, lines } = answered(new Error('code 123 456 of mira@brackwater.example'));
  expect(status).toBe(500);
  expect(lines).toHaveLength(1);
  expect(lines.join('')).not.toMatch(/mira|123/);
});
