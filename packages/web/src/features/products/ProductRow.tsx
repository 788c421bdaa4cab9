import { Link as MuiLink, Typography } from '@mui/material';
import { SHEET_TYPES, sheetPath, type StoredProduct } from '@steady-gleam/contracts';
import { FileButton } from '../../shared/FileButton';
import { useUnits } from '../../shared/units';
import { useWide } from '../../shared/useWide';
import { sayRatio } from './shelfForms';
import { ChangeCell, useCells } from './shelfTable';

interface ProductRowProps {
  readonly stored: StoredProduct;
  readonly onSheet: (file: File) => void;
  readonly onChange: () => void;
}

/** A product: its figures, its sheet, the way to change it. */
export function ProductRow({ stored, onSheet, onChange }: ProductRowProps) {
  const { product: p, sheet } = stored;
  const { text: td, figure } = useCells();
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
        {sheet ? (
          <MuiLink
            href={sheetPath(p.id)}
            target="_blank"
            color="inherit"
            sx={{ display: 'inline-block', minHeight: 24, maxWidth: 90, overflowWrap: 'anywhere' }}
          >
            {sheet.name}
          </MuiLink>
        ) : null}
        <FileButton
          variant="text"
          color="inherit"
          sx={{ px: 0.5, fontSize: 14, display: 'block', textAlign: 'left' }}
          label={`Sheet of ${p.name}`}
          accept={SHEET_TYPES.join(',')}
          onFile={onSheet}
        >
          {sheet ? 'Replace' : 'Attach'}
        </FileButton>
      </td>
      <ChangeCell name={p.name} onChange={onChange} />
    </tr>
  );
}
