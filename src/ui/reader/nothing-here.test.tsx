import { cleanup, render, screen } from '@testing-library/react';
import { afterEach, expect, test } from 'vitest';
import { NothingHere } from '@/ui/reader/nothing-here';
import { WordsProvider } from '@/ui/words/use-words';
import { fr } from '@/words/reader/fr';

afterEach(cleanup);

test('an address that was cut off is said in the language of the page', () => {
  render(
    <WordsProvider language="fr" messages={fr}>
      <NothingHere />
    </WordsProvider>,
  );
  expect(screen.getByRole('heading').textContent).toBe(fr.nothing.heading);
  expect(screen.getByText(fr.nothing.cutOff)).toBeDefined();
});
