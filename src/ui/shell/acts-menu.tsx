'use client';

import { useId, useState } from 'react';
import Button from '@mui/material/Button';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';

type Act = { readonly label: string; readonly act: () => void };

/** What can be done with one row, where it is wanted rarely. Shows nothing where there is nothing. */
export function ActsMenu({
  label,
  items,
  disabled = false,
}: {
  /** What the acts are about, for those who do not see the row. */
  readonly label: string;
  readonly items: readonly (Act | false)[];
  readonly disabled?: boolean;
}) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const id = useId();
  const shown = items.filter((item) => item !== false);
  if (shown.length === 0) return null;
  return (
    <>
      <Button
        variant="text"
        disabled={disabled}
        aria-label={label}
        aria-haspopup="menu"
        aria-controls={anchor === null ? undefined : id}
        aria-expanded={anchor !== null}
        onClick={(event) => {
          setAnchor(event.currentTarget);
        }}
      >
        Change
      </Button>
      <Menu
        id={id}
        anchorEl={anchor}
        open={anchor !== null}
        onClose={() => {
          setAnchor(null);
        }}
      >
        {shown.map((each) => (
          <MenuItem
            key={each.label}
            onClick={() => {
              setAnchor(null);
              each.act();
            }}
          >
            {each.label}
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}
