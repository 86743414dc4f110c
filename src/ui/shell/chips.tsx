'use client';

import type { ComponentProps } from 'react';
import Link from 'next/link';
import Chip from '@mui/material/Chip';

/** A small filter, place or choice that leads somewhere. There are many at once, so none is fetched ahead. */
export function ChipLink({ children, color: _color, ...link }: ComponentProps<typeof Link>) {
  return <Chip component={Link} prefetch={false} clickable label={children} {...link} />;
}

/** A small thing to press. */
export function ChipButton({ children, color: _color, ...button }: ComponentProps<'button'>) {
  return <Chip component="button" type="button" clickable label={children} {...button} />;
}
