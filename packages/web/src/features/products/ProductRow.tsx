import type { ReactNode } from 'react';
import { Link as MuiLink, Typography } from '@mui/material';
import { SHEET_TYPES, sheetPath, type StoredProduct } from '@steady-gleam/contracts';
import { type Product } from '@steady-gleam/core/products';
import { FileButton } from '../../shared/FileButton';
import { useUnits } from '../../shared/units';
import { useWide } from '../../shared/useWide';
import { sayRatio } from './shelfForms';

interface ProductRowProps {
  readonly p: Product;
  readonly td: {
    readonly padding: '7px 10px 7px 0';
    readonly borderTop: `1px solid ${string}`;
    readonly verticalAlign: 'middle';
  };
  readonly figure: {
    textAlign: 'right';
    whiteSpace: 'nowrap';
    padding: '7px 10px 7px 0';
    borderTop: `1px solid ${string}`;
    verticalAlign: 'middle';
  };
  readonly stored: { product: Product; version: number; sheet: { name: string; type: string } | null };
  readonly attach: (id: string, file: File) => void;
  readonly changeCell: (name: string, onClick: () => void) => ReactNode;
  readonly editProduct: (stored: StoredProduct | null, start: Product) => void;
}

/** A product: its figures, its sheet, the way to change it. */
export function ProductRow({ p, td, figure, stored, attach, changeCell, editProduct }: ProductRowProps) {
  const units = useUnits();
  const wide = useWide();
  return (
    <tr>
      <td style={td}>
        <Typography variant="h3" component="div">
          {p.name}
        </Typography>
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          {p.kind}, {p.chemistry}
        </Typography>
      </td>
      <td style={figure}>{sayRatio(p)}</td>
      <td style={figure}>{Math.round(p.volumeSolids * 100)} %</td>
      <td style={figure}>{units.say('film', p.filmUm)}</td>
      <td style={figure}>{p.flashMinutes} min</td>
      {wide ? (
        <>
          <td style={figure}>{p.potLifeMinutes === null ? '–' : `${p.potLifeMinutes} min`}</td>
          <td style={figure}>{units.say('voc', p.vocGPerL)}</td>
        </>
      ) : null}
      <td style={td}>
        {stored.sheet ? (
          <MuiLink
            href={sheetPath(p.id)}
            target="_blank"
            color="inherit"
            sx={{ display: 'inline-block', minHeight: 24, maxWidth: 90, overflowWrap: 'anywhere' }}
          >
            {stored.sheet.name}
          </MuiLink>
        ) : null}
        <FileButton
          variant="text"
          color="inherit"
          sx={{ px: 0.5, fontSize: 14, display: 'block', textAlign: 'left' }}
          label={`Sheet of ${p.name}`}
          accept={SHEET_TYPES.join(',')}
          onFile={(file) => attach(p.id, file)}
        >
          {stored.sheet ? 'Replace' : 'Attach'}
        </FileButton>
      </td>
      {changeCell(p.name, () => editProduct(stored, p))}
    </tr>
  );
}
