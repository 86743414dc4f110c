import { expect, test } from 'vitest';
import { fillFields, hasFields } from '@/core/message/fields';

const VALUES = {
  recipient: 'Mira Sand',
  organisation: 'Ferrow',
  documents: 'Lines plan',
  ends: '3 March',
  sender: '{recipient} $&',
};

test('fields are filled in once, whatever their values look like, and other braces stand', () => {
  expect(fillFields('Dear {recipient} of {organisation}, {who} {sender}', VALUES)).toBe(
    'Dear Mira Sand of Ferrow, {who} {recipient} $&',
  );
  expect(hasFields('Dear {recipient}')).toBe(true);
  expect(hasFields('Dear {who}')).toBe(false);
});
