import { screen } from '@testing-library/react';
import { expect, test } from 'vitest';
import type { Lacking } from '@/contracts/lacking';
import type { DocumentId } from '@/core/base/ids';
import { CAUTIOUS_TERMS } from '@/core/policy/saved-terms';
import { GivePanel } from '@/ui/give/give-panel';
import { api } from '@/ui/http/api';
import { show } from '../../../tests/support/screen';

const FROM = 'GET /api/v1/people/:id/lacking';
const NOW = Date.UTC(2026, 10, 25, 9);
const rows: Lacking['rows'] = [
  { id: 'doc_a', name: 'Lines plan', detail: 'TQ-1', once: null },
  { id: 'doc_b', name: 'Weight list', detail: 'TQ-2', once: 'revoked' },
];
const answer = ({ q = '' }: Readonly<Record<string, unknown>>): Lacking => ({
  rows: rows.filter(({ name }) => name.toLowerCase().includes(String(q))),
  total: rows.length,
  terms: [],
  begin: CAUTIOUS_TERMS,
  now: NOW,
});
const panel = (
  <GivePanel<typeof FROM, DocumentId>
    from={FROM}
    takes={(q) => ({ id: 'rcp_ann', q })}
    give={({ chosen, ...terms }) =>
      api('POST /api/v1/people/:id/lacking', { id: 'rcp_ann', documents: chosen, ...terms })
    }
    ask="Give more documents…"
    title="Does not have"
    disabled={false}
    done={(given) => `${String(given)} given.`}
  />
);

test('what is not held is searched, ticked and given on the terms that nobody chose', async () => {
  const { user, calls } = show(panel, {
    [FROM]: answer,
    'POST /api/v1/people/:id/lacking': () => ({ reference: 'D-1', given: 1, waits: false }),
  });
  await user.click(screen.getByRole('button', { name: 'Give more documents…' }));
  expect(await screen.findByText('Weight list')).toBeDefined();
  expect(screen.getByText(/was revoked/)).toBeDefined();
  await user.type(screen.getByRole('textbox', { name: 'Search' }), 'lines');
  await screen.findByRole('columnheader', { name: /first 1/ });
  await user.click(screen.getByRole('checkbox', { name: 'Select Lines plan' }));
  await user.click(screen.getByRole('button', { name: 'Give 1' }));
  expect(await screen.findByText(/1 given\. No mail was sent/)).toBeDefined();
  expect(calls.find(({ route }) => route.startsWith('POST'))?.input).toMatchObject({
    documents: ['doc_a'],
    terms: { rights: ['read'], prints: null },
  });
});

test('where a second person has to agree, nobody is told that it was given', async () => {
  const { user } = show(panel, {
    [FROM]: answer,
    'POST /api/v1/people/:id/lacking': () => ({ reference: 'D-1', given: 0, waits: true }),
  });
  await user.click(screen.getByRole('button', { name: 'Give more documents…' }));
  await user.click(await screen.findByRole('checkbox', { name: 'Select all of these' }));
  await user.click(screen.getByRole('button', { name: 'Give 2' }));
  expect(await screen.findByText(/Nothing is given until they approve/)).toBeDefined();
});

test('a refusal is said, and what was ticked stays ticked', async () => {
  const { user } = show(panel, {
    [FROM]: answer,
    'POST /api/v1/people/:id/lacking': {
      status: 409,
      error: { code: 'CONFLICT', message: 'The document was revoked meanwhile.' },
    },
  });
  await user.click(screen.getByRole('button', { name: 'Give more documents…' }));
  await user.click(await screen.findByRole('checkbox', { name: 'Select Lines plan' }));
  await user.click(screen.getByRole('button', { name: 'Give 1' }));
  expect((await screen.findByRole('alert')).textContent).toBe(
    'The document was revoked meanwhile.',
  );
  expect(screen.getByRole('button', { name: 'Give 1' })).toBeDefined();
});
