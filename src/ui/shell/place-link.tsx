'use client';

import { useState, type ReactNode } from 'react';
import Link from 'next/link';
import { usePathname } from 'next/navigation';

/**
 * A link to a place. Its page is fetched ahead once somebody reaches for it: fetching all places
 * ahead on every page would cost the server more than the pages themselves.
 */
export function PlaceLink({
  href,
  children,
}: {
  readonly href: string;
  readonly children: ReactNode;
}) {
  const path = usePathname();
  const [isNear, setNear] = useState(false);
  const reach = () => {
    setNear(true);
  };
  return (
    <Link
      href={href}
      prefetch={isNear ? null : false}
      onPointerEnter={reach}
      onFocus={reach}
      aria-current={path.startsWith(href) ? 'page' : undefined}
    >
      {children}
    </Link>
  );
}
