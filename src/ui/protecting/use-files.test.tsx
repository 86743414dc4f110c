import { fireEvent, screen } from '@testing-library/react';
import { useState } from 'react';
import { expect, test } from 'vitest';
import { useFiles } from '@/ui/protecting/use-files';
import { show } from '../../../tests/support/screen';

const pdf = (name: string) => new File(['%PDF-1.7 a paper'], name);

function Taking() {
  const [done, setDone] = useState(0);
  const files = useFiles(false, () => {
    setDone((before) => before + 1);
  });
  return (
    <>
      <button
        onClick={() => {
          files.add([pdf('one.pdf')]);
        }}
      >
        Add
      </button>
      {files.jobs.map(({ key, title, state }) => (
        <button
          key={key}
          onClick={() => {
            files.remove(key);
          }}
        >
          Remove {title}, {state}
        </button>
      ))}
      <p>{done} done</p>
    </>
  );
}

test('a file that is removed before its turn is never sent', async () => {
  const { calls } = show(<Taking />, {});
  // At once, before anything of it was read.
  fireEvent.click(screen.getByRole('button', { name: 'Add' }));
  fireEvent.click(screen.getByRole('button', { name: /^Remove one/ }));
  expect(screen.queryByRole('button', { name: /^Remove/ })).toBeNull();
  await new Promise((resolve) => {
    setTimeout(resolve, 300);
  });
  expect(calls).toEqual([]);
  expect(screen.getByText('0 done')).toBeDefined();
});
