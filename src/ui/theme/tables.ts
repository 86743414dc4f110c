import type { Components } from '@mui/material/styles';

/** Tables as a chart's margin is set: small heads, hair lines, the picked row in shoal blue. */
export const tables: Components = {
  MuiTable: { defaultProps: { size: 'small' } },
  MuiTableRow: {
    styleOverrides: {
      root: {
        '&[aria-selected="true"] > td': { background: 'var(--shoal)' },
        '&.MuiTableRow-hover:hover': { backgroundColor: 'var(--hover)' },
      },
    },
  },
  MuiTableCell: {
    styleOverrides: {
      root: {
        fontFamily: 'var(--read)',
        fontSize: 13,
        lineHeight: 1.4,
        padding: '5px 8px',
        color: 'inherit',
        borderBottom: '1px solid var(--hair)',
        verticalAlign: 'top',
        letterSpacing: 0,
        '&:first-of-type': { paddingLeft: 22 },
        '&:last-of-type': { paddingRight: 22 },
        '.flush &:first-of-type': { paddingLeft: 0 },
        '.flush &:last-of-type': { paddingRight: 0 },
        '&.number': { textAlign: 'right' },
        '&.oneline': { overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' },
      },
      head: {
        fontSize: 12,
        fontWeight: 600,
        lineHeight: 1.4,
        color: 'var(--quiet)',
        padding: '6px 8px',
        background: 'var(--paper)',
        borderBottom: '1px solid var(--line)',
        verticalAlign: 'middle',
        whiteSpace: 'nowrap',
        overflow: 'hidden',
        textOverflow: 'ellipsis',
        '.side &': { background: 'var(--panel)' },
      },
      body: {
        '&.number, &.figure': { fontFamily: 'var(--figure)', fontSize: 12, whiteSpace: 'nowrap' },
      },
      stickyHeader: { backgroundColor: 'var(--paper)' },
    },
  },
  MuiTableSortLabel: {
    styleOverrides: {
      root: {
        color: 'inherit',
        maxWidth: '100%',
        '&.Mui-active, &:hover, &:focus': { color: 'var(--ink)' },
        '.number &': { flexDirection: 'row-reverse' },
      },
      icon: { width: 8, height: 8, margin: '0 4px', fontSize: 8 },
    },
  },
};
