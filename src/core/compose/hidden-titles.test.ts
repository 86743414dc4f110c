import { expect, test } from 'vitest';
import { titlesInMail } from '@/core/compose/hidden-titles';

const offer = { id: 'doc_offer' as const, title: 'Offer: harbour' };
const plan = { id: 'doc_plan' as const, title: 'Plan' };
const said = (subject: string, note = '') => titlesInMail([offer, plan], { subject, note });

test.each([
  ['Offer: harbour', ['doc_offer']],
  ['The OFFER – HARBOUR, second round', ['doc_offer']],
  ['Plan and offer harbour', ['doc_offer', 'doc_plan']],
])('a subject that says “%s” names it', (subject, documents) => {
  expect(said(subject)).toEqual({ where: 'subject', documents });
});

test.each(['', 'Offers of harbours', 'Planning', 'harbour: offer'])(
  'a subject that says “%s” names none',
  (subject) => {
    expect(said(subject)).toBeNull();
  },
);

test('a note is looked at where the subject names none', () => {
  expect(said('Round 2', 'See the plan.')).toEqual({ where: 'note', documents: ['doc_plan'] });
  expect(said('Plan', 'Offer harbour')?.where).toBe('subject');
});

test('a title of signs alone names nothing', () => {
  expect(titlesInMail([{ id: 'doc_x', title: '–' }], { subject: 'a – b', note: '' })).toBeNull();
});
