import { useEffect } from 'react';
import { cleanup, render, screen } from '@testing-library/react';
import { afterEach, expect, test } from 'vitest';
import { inLanguage, unreachable } from '@/ui/http/call';
import { SpokenLanguage } from '@/ui/words/spoken-language';
import { useWords } from '@/ui/words/use-words';
import { de } from '@/words/reader/de';

afterEach(cleanup);

test('the first call of a page, and what it says when it fails, are in its language', () => {
  const first: { readonly asked: object; readonly said: string }[] = [];
  function Page() {
    const { say } = useWords();
    useEffect(() => {
      first.push({ asked: inLanguage(), said: unreachable().message });
    }, []);
    return <p>{say('opening')}</p>;
  }
  render(
    <SpokenLanguage language="de" messages={de}>
      <Page />
    </SpokenLanguage>,
  );
  expect(screen.getByText(de.opening)).toBeDefined();
  expect(document.documentElement.lang).toBe('de');
  expect(first).toEqual([{ asked: { 'accept-language': 'de' }, said: de.problems.unreachable }]);
});
