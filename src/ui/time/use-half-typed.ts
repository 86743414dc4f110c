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

function isEmpty(field: HTMLElement): boolean {
  return [...field.querySelectorAll('[role="spinbutton"]')].every(
    (section) => section.getAttribute('aria-valuetext') === 'Empty',
  );
}

/**
 * Keeps what is half typed to the field: the pickers report a field that lost one section as an
 * empty one, and nobody means "no end" by correcting a day. Left half typed, it shows what it was.
 */
export function useHalfTyped(given: Dayjs | null, take: (next: Dayjs | null) => void): HalfTyped {
  const [half, setHalf] = useState<{ readonly value: Dayjs | null } | null>(null);
  /** The button that empties the field reports both: that it was pressed, and then the empty field. */
  const cleared = useRef(false);
  return {
    isHalf: half !== null,
    value: half === null ? given : half.value,
    onChange: (next) => {
      if (next === null && cleared.current) {
        cleared.current = false;
        return;
      }
      const isWhole = next?.isValid() === true;
      setHalf(isWhole ? null : { value: next });
      if (isWhole) take(next);
    },
    onClear: () => {
      cleared.current = true;
      setHalf(null);
      take(null);
    },
    onBlur: ({ currentTarget, relatedTarget }) => {
      if (half === null || currentTarget.contains(relatedTarget)) return;
      if (isEmpty(currentTarget)) take(null);
      setHalf(null);
    },
  };
}
