'use client';

import { useId, useState } from 'react';
import Link from 'next/link';
import Button from '@mui/material/Button';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';

/** One action of the menu: a page to go to, or a file to save. */
export type MoreItem = {
  readonly label: string;
  readonly href: string;
  readonly download?: boolean;
};

/** The actions of a page that are wanted rarely. Shows nothing where there are none. */
export function MoreMenu({ items }: { readonly items: readonly (MoreItem | false)[] }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const id = useId();
  const shown = items.filter((item) => item !== false);
  const close = () => {
    setAnchor(null);
  };
  if (shown.length === 0) return null;
  return (
    <>
      <Button
        aria-haspopup="menu"
        aria-controls={anchor === null ? undefined : id}
        aria-expanded={anchor !== null}
        onClick={(event) => {
          setAnchor(event.currentTarget);
        }}
      >
        More
      </Button>
      <Menu id={id} anchorEl={anchor} open={anchor !== null} onClose={close}>
        {shown.map(({ label, href, download = false }) =>
          download ? (
            <MenuItem key={href} component="a" href={href} download onClick={close}>
              {label}
            </MenuItem>
          ) : (
            <MenuItem key={href} component={Link} href={href} prefetch={false} onClick={close}>
              {label}
            </MenuItem>
          ),
        )}
      </Menu>
    </>
  );
}
