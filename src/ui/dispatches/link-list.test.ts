import { expect, test } from 'vitest';
import { linkList } from '@/ui/dispatches/link-list';

const row = (name: string, link: string) => ({
  recipientId: `rcp_${name}` as const,
  name,
  address: `${name.toLowerCase()}@yard.example`,
  link,
});

test('each recipient is one line, however many documents they have', () => {
  const mira = row('Mira', 'https://x.example/r/a');
  expect(linkList([mira, mira, row('Jonas', 'https://x.example/r/b')])).toBe(
    'Mira\tmira@yard.example\thttps://x.example/r/a\n' +
      'Jonas\tjonas@yard.example\thttps://x.example/r/b',
  );
});

test('a link that is not seen here is left out', () => {
  expect(linkList([row('Mira', ''), row('Jonas', 'https://x.example/r/b')])).not.toContain('Mira');
  expect(linkList([])).toBe('');
});
