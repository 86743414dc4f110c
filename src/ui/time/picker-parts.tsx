import SvgIcon from '@mui/material/SvgIcon';

/** A sheet of a calendar, drawn with the stroke of our other marks. */
function CalendarMark() {
  return (
    <SvgIcon viewBox="0 0 16 16" sx={{ fontSize: 16 }}>
      <path
        d="M2.5 4.5h11v9h-11zM2.5 7.5h11M5.5 2v3.5M10.5 2v3.5"
        fill="none"
        stroke="currentColor"
        strokeWidth="1.3"
      />
    </SvgIcon>
  );
}

function ClearMark() {
  return (
    <SvgIcon viewBox="0 0 16 16" sx={{ fontSize: 14 }}>
      <path d="M4 4l8 8M12 4l-8 8" fill="none" stroke="currentColor" strokeWidth="1.3" />
    </SvgIcon>
  );
}

export const pickerSlots = {
  openPickerIcon: CalendarMark,
  clearIcon: ClearMark,
};

/** How the field of every picker looks. */
export const pickerField = {
  size: 'small',
  fullWidth: true,
  slotProps: { inputLabel: { shrink: true } },
} as const;
