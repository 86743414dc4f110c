'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import dynamic from 'next/dynamic';
import type { Watermark } from '@/core/watermark/layers';
import { MarkLines } from '@/ui/watermark/mark-line';
import type { ShownAs } from '@/ui/watermark/mark-preview';

const Designer = dynamic(() => import('@/ui/watermark/designer').then((all) => all.Designer));

/** Somebody, on whichever document is at hand. */
const ANYBODY: ShownAs = {
  document: null,
  address: 'mira@yard.example',
  name: '',
  organisation: '',
};

type Props = {
  readonly label: string;
  readonly value: Watermark;
  readonly onChange: (layers: Watermark) => void;
  /** Layers there may be. */
  readonly most?: number;
  readonly hint?: string;
  readonly problem?: string | undefined;
  readonly disabled?: boolean;
  readonly shownAs?: ShownAs;
};

/** A watermark: what it says, and the way to its designer. */
export function WatermarkField({
  label,
  value,
  onChange,
  most,
  hint,
  problem,
  disabled = false,
  shownAs = ANYBODY,
}: Props) {
  const [isOpen, setOpen] = useState(false);
  return (
    <section className="stack tight" aria-label={label}>
      <h3>{label}</h3>
      <MarkLines layers={value} />
      {problem !== undefined && <p className="magenta small">{problem}</p>}
      {hint !== undefined && <p className="quiet small">{hint}</p>}
      {!disabled && (
        <div>
          <Button
            onClick={() => {
              setOpen(true);
            }}
          >
            Design…
          </Button>
        </div>
      )}
      {isOpen && (
        <Designer
          title={label}
          start={value}
          {...(most === undefined ? {} : { most })}
          shownAs={shownAs}
          onDone={(layers) => {
            setOpen(false);
            if (layers !== null) onChange(layers);
          }}
        />
      )}
    </section>
  );
}
