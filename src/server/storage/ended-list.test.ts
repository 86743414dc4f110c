import { appendFileSync, mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, expect, test } from 'vitest';
import type { Ending } from '@/core/ledger/endings';
import { createEndedList, readEndings } from '@/server/storage/ended-list';

const folder = mkdtempSync(path.join(tmpdir(), 'ended-'));
afterAll(() => {
  rmSync(folder, { recursive: true });
});
const file = path.join(folder, 'kept', 'ended.jsonl');
const blocked = (sequence: number): Ending => ({
  sequence,
  of: 'recipient',
  id: 'rcp_00000000000000000001',
  blocked: true,
});

test('it is only ever added to, knows how far it was kept, and a line that was cut spoils no other', () => {
  const list = createEndedList(file);
  expect(list.keptUpTo()).toBe(0);
  list.add([]);
  list.add([blocked(4), blocked(9)]);
  expect([list.keptUpTo(), statSync(file).mode & 0o777]).toEqual([9, 0o600]);
  appendFileSync(file, '{"sequence":12,"of":"recip');
  const again = createEndedList(file);
  expect(again.keptUpTo()).toBe(9);
  again.add([blocked(14)]);
  expect(readEndings(file).map(({ sequence }) => sequence)).toEqual([4, 9, 14]);
  expect(readFileSync(file, 'utf8').startsWith('\n{"sequence":4')).toBe(true);
});
