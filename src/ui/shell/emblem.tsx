/** A compass ring, barred. */
export function Emblem() {
  return (
    <svg width="22" height="22" viewBox="0 0 22 22" aria-hidden="true">
      <circle cx="11" cy="11" r="9.5" fill="none" stroke="var(--ink)" strokeWidth="1.6" />
      <path d="M11 1.5v19M1.5 11h19" stroke="var(--ink)" strokeWidth=".8" />
      <path d="M4 18 18 4" stroke="var(--magenta)" strokeWidth="2.4" />
    </svg>
  );
}
