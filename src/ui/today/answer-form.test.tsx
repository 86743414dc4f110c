import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import type { RequestRow } from '@/contracts/requests';
import { AnswerForm, type AnswerFields } from '@/ui/today/answer-form';

const answered = vi.fn<(fields: AnswerFields, done: string) => Promise<void>>();
const askedBack = vi.fn<(words: string) => Promise<void>>();
beforeEach(() => {
  askedBack.mockReset().mockResolvedValue(undefined);
  answered.mockReset().mockResolvedValue(undefined);
});
afterEach(cleanup);

const END = new Date(2027, 0, 1, 12, 0).getTime();
const REQUEST: RequestRow = {
  id: 'req_1111111111111111',
  askedAt: 0,
  right: null,
  until: null,
  reason: 'More time, please',
  turns: [],
  answer: '',
  state: 'waiting',
  recipientId: 'rcp_1111111111111111',
  name: 'Lena Berg',
  address: 'lena.berg@ferrow.example',
  organisation: '',
  documentId: 'doc_1111111111111111',
  title: 'Weight list',
  dispatchId: 'dsp_1111111111111111',
  subject: 'Weights',
  met: null,
  holds: { rights: ['read'], until: null, prints: null },
  mayAnswer: true,
  yours: true,
  above: { right: null, until: null },
};

function show(change: Partial<RequestRow>, people = 1, differ = false) {
  render(
    <AnswerForm
      request={{ ...REQUEST, ...change }}
      people={people}
      differ={differ}
      onAnswer={answered}
      onAskBack={askedBack}
    />,
  );
  return userEvent.setup();
}

test('a message is answered with words, and only with some', async () => {
  const user = show({});
  const send = screen.getByRole<HTMLButtonElement>('button', { name: 'Send answer' });
  expect(send.disabled).toBe(true);
  await user.type(screen.getByLabelText('Your answer'), 'It will be sent on Monday.');
  await user.click(send);
  expect(answered.mock.calls[0]?.[0]).toEqual({
    right: null,
    until: null,
    prints: null,
    words: 'It will be sent on Monday.',
  });
});

test('prints that are asked for are given as one print, unless another number is typed', async () => {
  const user = show({ right: 'print' });
  await user.click(screen.getByRole('button', { name: 'Give this' }));
  expect(answered.mock.calls[0]?.[0]).toMatchObject({ right: 'print', prints: 1, until: null });
});

test('time that is asked for is given as it was asked', async () => {
  const user = show({ until: END }, 3);
  await user.click(screen.getByRole('button', { name: 'Give this to all 3' }));
  expect(answered.mock.calls[0]?.[0]).toMatchObject({ right: null, until: END });
});

test('nobody is declined without a word', async () => {
  const user = show({ right: 'copy' });
  const decline = screen.getByRole<HTMLButtonElement>('button', { name: 'Decline' });
  expect(decline.disabled).toBe(true);
  await user.type(screen.getByLabelText('Message'), 'Not before the tender closes.');
  await user.click(decline);
  expect(answered.mock.calls).toEqual([
    [
      { right: null, until: null, prints: null, words: 'Not before the tender closes.' },
      'Declined for',
    ],
  ]);
});

test('a question back carries the words and gives nothing', async () => {
  const user = show({ right: 'print' });
  const ask = screen.getByRole<HTMLButtonElement>('button', { name: 'Ask back' });
  expect(ask.disabled).toBe(true);
  await user.type(screen.getByLabelText('Message'), 'How many copies?');
  await user.click(ask);
  expect(askedBack).toHaveBeenCalledWith('How many copies?');
  expect(answered).not.toHaveBeenCalled();
});

test('those who asked for different times get each their own, unless one time is chosen', async () => {
  const user = show({ until: END }, 2, true);
  await user.click(screen.getByRole('button', { name: 'Give this to all 2' }));
  expect(answered.mock.calls[0]?.[0]).toMatchObject({ until: 'as-asked' });
  await user.click(screen.getByLabelText('Each until the time they asked for'));
  await user.click(screen.getByRole('button', { name: 'Give this to all 2' }));
  expect(answered.mock.calls[1]?.[0]).toMatchObject({ until: END });
});
