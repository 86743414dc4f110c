import { expect, test } from 'vitest';
import { insertAround, insertAtLines } from '@/ui/compose/note-editing';

test('a sign is put around what is selected, and taken away again', () => {
  const bold = insertAround('see frame 40', 4, 9, '**');
  expect(bold).toEqual({ text: 'see **frame** 40', from: 6, to: 11 });
  expect(insertAround(bold.text, bold.from, bold.to, '**')).toEqual({
    text: 'see frame 40',
    from: 4,
    to: 9,
  });
});

test('every line that is touched becomes a point, and none again', () => {
  const list = insertAtLines('a\nbc\nd', 2, 6, '- ');
  expect(list).toEqual({ text: 'a\n- bc\n- d', from: 2, to: 10 });
  expect(insertAtLines(list.text, list.from, list.to, '- ').text).toBe('a\nbc\nd');
  expect(insertAtLines('', 0, 0, '- ').text).toBe('- ');
});
