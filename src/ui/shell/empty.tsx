import type { ReactNode } from 'react';

/** What stands where a list holds nothing: that it does, and what can be done. */
export function Empty({
  title,
  children,
}: {
  readonly title: string;
  readonly children: ReactNode;
}) {
  return (
    <div className="empty">
      <h2>{title}</h2>
      <p>{children}</p>
    </div>
  );
}
