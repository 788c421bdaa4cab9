import { Button, useTheme } from '@mui/material';
import type { CSSProperties } from 'react';

/** How cells of the shelf's tables stand: text, and figures to the right. */
export function useCells(): { readonly text: CSSProperties; readonly figure: CSSProperties } {
  const { tones } = useTheme();
  const text = { padding: '7px 10px 7px 0', borderTop: `1px solid ${tones.hairline}`, verticalAlign: 'middle' };
  return { text, figure: { ...text, textAlign: 'right', whiteSpace: 'nowrap' } };
}

/** Names of columns, those of text to the left; the last column is for what can be done. */
export function ShelfHead({ names, text }: { names: readonly string[]; text: readonly string[] }) {
  const { figure } = useCells();
  const th: CSSProperties = { ...figure, borderTop: 0, fontWeight: 400, fontSize: 14, verticalAlign: 'bottom' };
  return (
    <thead>
      <tr>
        {names.map((name) => (
          <th key={name} scope="col" style={{ ...th, textAlign: text.includes(name) ? 'left' : 'right' }}>
            {name}
          </th>
        ))}
        <td style={{ ...th, padding: 0 }} />
      </tr>
    </thead>
  );
}

export function ChangeCell({ name, onChange }: { name: string; onChange: () => void }) {
  const { figure } = useCells();
  return (
    <td style={{ ...figure, paddingRight: 0 }}>
      <Button variant="outlined" aria-label={`Change ${name}`} sx={{ px: 1 }} onClick={onChange}>
        Change
      </Button>
    </td>
  );
}

export const TABLE = { borderCollapse: 'collapse', width: '100%', fontSize: 15 } as const;
