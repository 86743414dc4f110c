'use client';

import Chip from '@mui/material/Chip';
import { ChipLink } from '@/ui/shell/chips';

/** The parts of Settings. */
export function SettingsPlaces({ here }: { readonly here: 'staff' | 'work' | 'keys' }) {
  return (
    <div className="row" role="navigation" aria-label="Sections of Settings">
      <ChipLink href="/settings" aria-current={here === 'staff'}>
        Staff
      </ChipLink>
      <ChipLink href="/settings/work" aria-current={here === 'work'}>
        Work
      </ChipLink>
      {/* Fetched whole: only that page's own policy lets the drill's WebAssembly run. */}
      <Chip
        component="a"
        clickable
        href="/settings/keys"
        aria-current={here === 'keys'}
        label="Keys and recovery"
      />
    </div>
  );
}
