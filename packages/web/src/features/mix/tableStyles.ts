import type { CSSProperties } from 'react';
import { FIGURES } from '../../app/theme';

/** Heads and figures of the mix room's tables. @param hairline colour of the line above a row */
export function tableStyles(hairline: string): { readonly head: CSSProperties; readonly cell: CSSProperties } {
  return {
    head: { fontWeight: 400, textAlign: 'right', fontSize: 14, padding: '4px 0 4px 10px' },
    cell: {
      padding: '9px 0 9px 10px',
      borderTop: `1px solid ${hairline}`,
      fontFamily: FIGURES,
      textAlign: 'right',
      whiteSpace: 'nowrap',
    },
  };
}
