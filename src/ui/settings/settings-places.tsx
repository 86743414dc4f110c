'use client';

import Link from 'next/link';

/** The parts of Settings. */
export function SettingsPlaces({ here }: { readonly here: 'staff' | 'work' | 'keys' }) {
  return (
    <div className="row" role="navigation" aria-label="Sections of Settings">
      <Link className="chip" href="/settings" aria-current={here === 'staff'}>
        Staff
      </Link>
      <Link className="chip" href="/settings/work" aria-current={here === 'work'}>
        Work
      </Link>
      {/* Fetched whole: only that page's own policy lets the drill's WebAssembly run. */}
      <a className="chip" href="/settings/keys" aria-current={here === 'keys'}>
        Keys and recovery
      </a>
    </div>
  );
}
