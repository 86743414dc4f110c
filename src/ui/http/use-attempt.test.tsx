import { startTransition, Suspense, use, useEffect, useState } from 'react';
import { act, screen } from '@testing-library/react';
import { expect, test, vi } from 'vitest';
import { useAttempt } from '@/ui/http/use-attempt';
import { show } from '../../../tests/support/screen';

const page = vi.hoisted(() => ({ refresh: (): void => undefined }));
vi.mock('next/navigation', () => ({
  useRouter: () => ({
    refresh: () => {
      page.refresh();
    },
  }),
}));

function Switch({ state }: { readonly state: Promise<boolean> }) {
  const on = use(state);
  const { attempt, busy, said } = useAttempt();
  return (
    <>
      <button
        type="button"
        disabled={busy}
        onClick={() => {
          void attempt(() => Promise.resolve(), on ? 'turned off' : 'turned on');
        }}
      >
        {on ? 'on' : 'off'}
      </button>
      <p>{said?.text}</p>
    </>
  );
}

test('until the page shows what came of it, nothing can be pressed on what was there before', async () => {
  let arrives = (_on: boolean): void => undefined;
  const fetched = new Promise<boolean>((resolve) => {
    arrives = resolve;
  });
  function Page() {
    const [state, setState] = useState(() => Promise.resolve(false));
    useEffect(() => {
      page.refresh = () => {
        startTransition(() => {
          setState(fetched);
        });
      };
    }, []);
    return (
      <Suspense>
        <Switch state={state} />
      </Suspense>
    );
  }
  const { user } = await act(() => Promise.resolve(show(<Page />)));
  await user.click(await screen.findByRole('button', { name: 'off' }));
  expect(await screen.findByText('turned on')).toBeDefined();
  expect(screen.getByRole('button')).toHaveProperty('disabled', true);

  await act(async () => {
    arrives(true);
    await fetched;
  });
  expect(await screen.findByRole('button', { name: 'on' })).toHaveProperty('disabled', false);
});
