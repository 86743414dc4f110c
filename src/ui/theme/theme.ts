'use client';

import { createTheme } from '@mui/material/styles';
import { pickers } from '@/ui/theme/pickers';
import { tables } from '@/ui/theme/tables';

const read = "'Atkinson Hyperlegible Next Variable', sans-serif";

/** The sheet colours of tokens.css, for the parts that come from the component library. */
export const theme = createTheme({
  cssVariables: { colorSchemeSelector: '[data-scheme="%s"]' },
  colorSchemes: {
    light: {
      palette: {
        primary: { main: '#0F2B3C', contrastText: '#F7F4EA' },
        error: { main: '#A4155A' },
        warning: { main: '#8A6100' },
        background: { default: '#F7F4EA', paper: '#FFFDF6' },
        text: { primary: '#0F2B3C', secondary: '#4C6270' },
        divider: '#CFC9B8',
      },
    },
    dark: {
      palette: {
        primary: { main: '#E8E6DA', contrastText: '#0B1A24' },
        error: { main: '#FF7DB4' },
        warning: { main: '#F0C95A' },
        background: { default: '#0B1A24', paper: '#10232F' },
        text: { primary: '#E8E6DA', secondary: '#9DB2BD' },
        divider: '#2A4352',
      },
    },
  },
  shape: { borderRadius: 2 },
  shadows: Array.from({ length: 25 }, () => 'none') as never,
  typography: {
    fontFamily: read,
    fontSize: 13,
    button: { textTransform: 'none', fontWeight: 600 },
  },
  components: {
    MuiButtonBase: { defaultProps: { disableRipple: true } },
    MuiButton: {
      defaultProps: { variant: 'outlined', size: 'small', disableElevation: true },
      styleOverrides: { root: { fontSize: 13, padding: '5px 12px' } },
    },
    MuiTextField: {
      defaultProps: { size: 'small', fullWidth: true, slotProps: { inputLabel: { shrink: true } } },
    },
    MuiCheckbox: {
      defaultProps: { size: 'small' },
      styleOverrides: { root: { padding: '3px 9px' } },
    },
    MuiFormControlLabel: { styleOverrides: { label: { fontSize: 14 } } },
    MuiToggleButtonGroup: { defaultProps: { size: 'small' } },
    MuiToggleButton: {
      styleOverrides: {
        root: {
          fontSize: 12.5,
          padding: '3px 10px',
          color: 'var(--ink)',
          borderColor: 'var(--line)',
          background: 'var(--panel)',
          '&.Mui-selected, &.Mui-selected:hover': {
            background: 'var(--shoal)',
            color: 'var(--ink)',
          },
        },
      },
    },
    ...pickers,
    ...tables,
    MuiAlert: {
      styleOverrides: {
        root: {
          display: 'flex',
          alignItems: 'center',
          fontSize: 14,
          lineHeight: 1.4,
          padding: '8px 12px',
          marginTop: 8,
          borderRadius: 0,
          color: 'var(--ink)',
          '.stack > &, .loose > &': { marginTop: 0 },
        },
        message: { padding: 0, flex: 1, minWidth: 0 },
        action: { padding: 0, margin: 0 },
        standard: ({ ownerState }) =>
          ownerState.severity === 'error'
            ? { borderLeft: '3px solid var(--magenta)', background: 'var(--magenta-soft)' }
            : { borderLeft: '3px solid var(--lamp)', background: 'var(--lamp-soft)' },
      },
    },
    MuiSnackbar: {
      defaultProps: { anchorOrigin: { vertical: 'bottom', horizontal: 'left' } },
      // Over the work surface: beside the places, above the demo's strip.
      styleOverrides: {
        root: { '@media (min-width: 760px)': { left: 194, bottom: 52, right: 'auto' } },
      },
    },
    MuiSnackbarContent: {
      styleOverrides: {
        root: {
          background: 'var(--panel)',
          color: 'var(--ink)',
          border: '1px solid var(--ink)',
          borderRadius: 2,
          fontSize: 14,
          padding: '4px 14px',
        },
      },
    },
    MuiTabs: {
      styleOverrides: {
        root: { minHeight: 34 },
        indicator: { background: 'var(--ink)', height: 3 },
      },
    },
    MuiTab: {
      styleOverrides: {
        root: {
          minHeight: 34,
          minWidth: 0,
          padding: '6px 12px',
          fontSize: 13,
          color: 'var(--quiet)',
          '&.Mui-selected': { color: 'var(--ink)' },
        },
      },
    },
    MuiTooltip: {
      styleOverrides: {
        tooltip: {
          background: 'var(--ink)',
          color: 'var(--paper)',
          fontSize: 12.5,
          borderRadius: 2,
        },
      },
    },
    MuiChip: {
      defaultProps: { variant: 'outlined', size: 'small' },
      styleOverrides: {
        root: {
          height: 'auto',
          minHeight: 24,
          borderRadius: 2,
          borderColor: 'var(--line)',
          background: 'var(--panel)',
          color: 'var(--ink)',
          fontSize: 12.5,
          textDecoration: 'none',
          '&.MuiChip-clickable:hover': { background: 'var(--hover)' },
          '&.on, &[aria-pressed="true"], &[aria-current="true"], &[aria-current="page"]': {
            background: 'var(--shoal)',
            borderColor: 'var(--ink)',
          },
        },
        label: { padding: '2px 8px', whiteSpace: 'normal' },
      },
    },
    MuiMenu: { styleOverrides: { paper: { border: '1px solid var(--line)' } } },
    MuiDialog: {
      styleOverrides: { paper: { border: '1px solid var(--line)', backgroundImage: 'none' } },
    },
    MuiDialogTitle: {
      styleOverrides: {
        root: { padding: '18px 22px 0', fontSize: 20, fontWeight: 650, lineHeight: 1.3 },
      },
    },
    MuiDialogContent: { styleOverrides: { root: { padding: '12px 22px 6px !important' } } },
    MuiDialogActions: { styleOverrides: { root: { padding: '12px 22px 18px' } } },
    MuiFormHelperText: { styleOverrides: { root: { marginLeft: 2, fontSize: 12 } } },
  },
});
