'use client';

import { useEffect, useState, type RefObject } from 'react';

type Props = { readonly pages: number; readonly list: RefObject<HTMLElement | null> };

/** Says which page is in view, and leads to another. */
export function PageJump({ pages, list }: Props) {
  const [current, setCurrent] = useState(1);
  const [typed, setTyped] = useState<string | null>(null);

  useEffect(() => {
    const scroller = list.current;
    if (scroller === null) return undefined;
    const look = () => {
      // The page that the middle of the view lies on; pages differ in height once they are drawn.
      const { top, bottom } = scroller.getBoundingClientRect();
      const middle = (Math.max(0, top) + Math.min(window.innerHeight, bottom)) / 2;
      const frames = [...scroller.querySelectorAll('.page')];
      const at = frames.findIndex((frame) => frame.getBoundingClientRect().bottom >= middle);
      setCurrent(at === -1 ? frames.length : at + 1);
    };
    // Scrolling is not heard through bubbling, and on a phone it is the whole body that scrolls.
    document.addEventListener('scroll', look, { capture: true, passive: true });
    return () => {
      document.removeEventListener('scroll', look, { capture: true });
    };
  }, [list]);

  const go = () => {
    const page = Math.max(1, Math.min(pages, Math.floor(Number(typed)) || current));
    setTyped(null);
    list.current
      ?.querySelectorAll('.page')
      .item(page - 1)
      .scrollIntoView({ block: 'start' });
  };

  return (
    <form
      className="jump"
      onSubmit={(event) => {
        event.preventDefault();
        go();
      }}
    >
      <label>
        Page{' '}
        <input
          inputMode="numeric"
          aria-label="Page"
          value={typed ?? String(current)}
          onChange={(event) => {
            setTyped(event.target.value.replaceAll(/\D/g, ''));
          }}
          onBlur={() => {
            setTyped(null);
          }}
        />{' '}
        of {pages}
      </label>
    </form>
  );
}
