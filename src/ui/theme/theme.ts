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
          '&[aria-pressed="true"], &[aria-current="true"], &[aria-current="page"]': {
            background: 'var(--shoal)',
            borderColor: 'var(--ink)',
          },
        },
        label: { padding: '2px 8px', whiteSpace: 'normal' },
      },
    },
    MuiMenu: { styleOverrides: { paper: { border: '1px solid var(--line)' } } },
    MuiDialog: { styleOverrides: { paper: { border: '1px solid var(--line)' } } },
  },
});
