import { vi } from 'vitest';

// Parts of the interface are tried without the framework around them: going elsewhere is only noted.
vi.mock('next/navigation', () => ({
  useRouter: () => ({ refresh: vi.fn(), push: vi.fn(), replace: vi.fn() }),
  usePathname: () => '/',
  useSearchParams: () => new URLSearchParams(),
}));
