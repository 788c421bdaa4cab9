import { Box, useTheme } from '@mui/material';
import { FIGURES } from '../../app/theme';

/** Figures under one another, each with its name and unit. */
export function FigureRows({ rows }: { rows: readonly (readonly [string, string])[] }) {
  const { tones } = useTheme();
  return (
    <Box component="dl" sx={{ m: 0 }}>
      {rows.map(([name, figure]) => (
        <Box
          key={name}
          sx={{ display: 'flex', gap: 1, py: 0.75, borderBottom: `1px solid ${tones.hairline}`, fontSize: 15 }}
        >
          <Box component="dt" sx={{ flex: 1 }}>
            {name}
          </Box>
          <Box component="dd" sx={{ m: 0, fontFamily: FIGURES, whiteSpace: 'nowrap' }}>
            {figure}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
