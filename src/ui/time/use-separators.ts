import { useRef, type KeyboardEvent } from 'react';

/**
 * Lets a field of sections be typed as it is written: what separates two sections (`1 Jan`, `9:00`)
 * goes on to the next one, unless the field has gone on by itself (`17 Jan`).
 */
export function useSeparators(): (event: KeyboardEvent<HTMLElement>) => void {
  const typedIn = useRef<Element | null>(null);
  return (event) => {
    const { key, currentTarget } = event;
    const section = document.activeElement;
    // The rest of a month's name, after which the field had gone on already, is typed into nothing.
    const takes = section?.getAttribute('inputmode') === 'numeric' ? /^\d$/ : /^\p{L}$/u;
    if (takes.test(key)) {
      typedIn.current = section;
      return;
    }
    if (!/^[ :./-]$/.test(key) || section?.getAttribute('role') !== 'spinbutton') return;
    // Else it would be typed into the section: the pickers take a space for a nought.
    event.preventDefault();
    if (section !== typedIn.current) return;
    const sections = [...currentTarget.querySelectorAll<HTMLElement>('[role="spinbutton"]')];
    sections[sections.findIndex((each) => each === section) + 1]?.focus();
  };
}
