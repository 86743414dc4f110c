'use client';

import { useEffect, useRef, useState } from 'react';
import { useRouter } from 'next/navigation';
import { PlainField } from '@/ui/forms/plain-field';
import { Keys } from '@/ui/shell/keys';

/** Whether a key was typed into something. */
function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName))
  );
}

/** Finds documents, people and dispatches from anywhere; `/` leads here, `?` lists the keys. */
export function FindBox() {
  const router = useRouter();
  const box = useRef<HTMLInputElement>(null);
  const [keys, setKeys] = useState(false);

  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (isTyping(event.target) || event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key === '/') {
        event.preventDefault();
        box.current?.focus();
      }
      if (event.key === '?') setKeys(true);
    };
    window.addEventListener('keydown', press);
    return () => {
      window.removeEventListener('keydown', press);
    };
  }, []);

  return (
    <>
      <form
        role="search"
        className="find"
        onSubmit={(event) => {
          event.preventDefault();
          const wanted = box.current?.value.trim() ?? '';
          if (wanted !== '') router.push(`/find?q=${encodeURIComponent(wanted)}`);
        }}
      >
        <PlainField
          inputRef={box}
          type="search"
          label="Find a document, person or dispatch"
          placeholder="Find…  /"
        />
      </form>
      <Keys
        open={keys}
        onClose={() => {
          setKeys(false);
        }}
      />
    </>
  );
}
