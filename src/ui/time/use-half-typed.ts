import { useRef, useState, type FocusEvent } from 'react';
import type { Dayjs } from 'dayjs';

type HalfTyped = {
  /** Whether what stands in the field is no whole moment, which counts for nothing. */
  readonly isHalf: boolean;
  readonly value: Dayjs | null;
  readonly onChange: (next: Dayjs | null) => void;
  readonly onClear: () => void;
  readonly onBlur: (event: FocusEvent<HTMLElement>) => void;
};

/** A year before it is one that is being typed: `2`, `20`, `203`. */
const FIRST_YEAR = 1970;

function isEmpty(field: HTMLElement): boolean {
  return [...field.querySelectorAll('[role="spinbutton"]')].every(
    (section) => section.getAttribute('aria-valuetext') === 'Empty',
  );
}

/**
 * Keeps what is half typed to the field: the pickers report a field that lost one section as an
 * empty one, and nobody means "no end" by correcting a day. Left half typed, it shows what it was.
 * What was typed is shown until then, so that nothing that comes back in between is typed into.
 */
export function useHalfTyped(given: Dayjs | null, take: (next: Dayjs | null) => void): HalfTyped {
  const [typed, setTyped] = useState<{
    readonly value: Dayjs | null;
    readonly isWhole: boolean;
  } | null>(null);
  /** The button that empties the field reports both: that it was pressed, and then the empty field. */
  const cleared = useRef(false);
  return {
    isHalf: typed?.isWhole === false,
    value: typed === null ? given : typed.value,
    onChange: (next) => {
      if (next === null && cleared.current) {
        cleared.current = false;
        return;
      }
      const isWhole = next?.isValid() === true && next.year() >= FIRST_YEAR;
      setTyped({ value: next, isWhole });
      if (isWhole) take(next);
    },
    onClear: () => {
      cleared.current = true;
      setTyped(null);
      take(null);
    },
    onBlur: ({ currentTarget, relatedTarget }) => {
      if (typed === null || currentTarget.contains(relatedTarget)) return;
      if (!typed.isWhole && isEmpty(currentTarget)) take(null);
      setTyped(null);
    },
  };
}
