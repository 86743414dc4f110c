'use client';

import dynamic from 'next/dynamic';
import TextField from '@mui/material/TextField';

export type MomentFieldProps = {
  readonly label: string;
  /** In ms since the epoch; `null`: none. */
  readonly value: number | null;
  readonly onChange: (at: number | null) => void;
  /** What no moment means: `No end`. */
  readonly none: string;
  /** What stands below instead of the zone. */
  readonly hint?: string;
  readonly required?: boolean;
};
export type DayFieldProps = {
  readonly label: string;
  /** `2026-12-17`; `null`: none. */
  readonly value: string | null;
  readonly onChange: (day: string | null) => void;
  readonly first?: string;
  readonly last?: string;
};
export type ClockFieldProps = {
  readonly label: string;
  /** Minutes since midnight; `null`: none. */
  readonly minute: number | null;
  readonly onChange: (minute: number | null) => void;
  readonly hint?: string;
  readonly required?: boolean;
};

/**
 * What stands in a picker's place until it is fetched: pickers are in no page's first script.
 * Where a hint will stand below, it keeps that line, so that nothing moves when the picker comes.
 */
function Waiting({ className, hint }: { readonly className: string; readonly hint?: string }) {
  return <TextField className={className} label=" " disabled helperText={hint} />;
}

/** The field of a moment. */
export const MomentField = dynamic(() => import('@/ui/time/moment-picker'), {
  ssr: false,
  loading: () => <Waiting className="picker" hint=" " />,
});

/** The field of a day. */
export const DayField = dynamic(() => import('@/ui/time/day-picker'), {
  ssr: false,
  loading: () => <Waiting className="picker day" />,
});

/** The field of a time of day. */
export const ClockField = dynamic(() => import('@/ui/time/clock-picker'), {
  ssr: false,
  loading: () => <Waiting className="picker clock" />,
});
