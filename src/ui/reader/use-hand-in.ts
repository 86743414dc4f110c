import { useEffect } from 'react';

/** Hands in what was read without a connection, whenever there is one. */
export function useHandIn(): void {
  useEffect(() => {
    const tell = () => {
      // Most readers never read without a connection: what does this is loaded after the page.
      void import('@/ui/reader/hand-in').then(({ handIn }) => handIn().catch(() => undefined));
    };
    const timer = setTimeout(tell, 2_000);
    window.addEventListener('online', tell);
    return () => {
      clearTimeout(timer);
      window.removeEventListener('online', tell);
    };
  }, []);
}
