import type { Components } from '@mui/material/styles';
import type {} from '@mui/x-date-pickers/themeAugmentation';

/** Fields and calendars of moments, days and times of day. */
export const pickers: Components = {
  MuiPickersOutlinedInput: {
    styleOverrides: {
      root: { paddingLeft: 10, paddingRight: 10 },
      sectionsContainer: {
        fontSize: 14,
        padding: '8.5px 0',
        opacity: '1 !important',
        '[aria-valuetext="Empty"]': { color: 'var(--quiet)' },
      },
    },
  },
  MuiPickerPopper: {
    styleOverrides: {
      paper: { border: '1px solid var(--line)', borderRadius: 2, backgroundImage: 'none' },
    },
  },
  MuiPickersCalendarHeader: { styleOverrides: { label: { fontSize: 14, fontWeight: 600 } } },
  MuiDayCalendar: { styleOverrides: { weekDayLabel: { color: 'var(--quiet)', fontSize: 12 } } },
  MuiPickerDay: {
    styleOverrides: {
      root: {
        borderRadius: 2,
        fontSize: 13,
        '&.Mui-selected, &.Mui-selected:hover, &.Mui-selected:focus': {
          background: 'var(--shoal)',
          color: 'var(--ink)',
          outline: '1px solid var(--ink)',
        },
      },
      today: { '&:not(.Mui-selected)': { border: '1px dashed var(--quiet)' } },
    },
  },
  MuiMultiSectionDigitalClockSection: {
    styleOverrides: {
      item: {
        borderRadius: 2,
        fontSize: 13,
        '&.Mui-selected, &.Mui-selected:hover': {
          background: 'var(--shoal)',
          color: 'var(--ink)',
        },
      },
    },
  },
};
