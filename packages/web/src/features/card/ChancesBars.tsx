import { Box, Typography, useTheme } from '@mui/material';
import type { Advice } from '@steady-gleam/core/matching';
import { FIGURES } from '../../app/theme';
import { sayCoats } from '../../shared/jobModel';

/** Chances of ending under, in or over the window for the half coats around the advice. */
export function ChancesBars({ advice }: { advice: Advice }) {
  const { tones } = useTheme();
  const at = advice.chances.findIndex((c) => c.coats === advice.spray);
  const shown = advice.chances.slice(Math.max(0, at - 1), Math.max(0, at - 1) + 4);
  const part = (share: number, word: string, background: string, ink: string) =>
    share < 0.005 ? null : (
      <Box
        sx={{
          width: `${share * 100}%`,
          background,
          color: ink,
          overflow: 'hidden',
          whiteSpace: 'nowrap',
          fontFamily: FIGURES,
          fontSize: 13,
          lineHeight: '26px',
          pl: share > 0.24 ? '7px' : 0,
        }}
      >
        {share > 0.42 ? `${Math.round(share * 100)} % ${word}` : share > 0.24 ? `${Math.round(share * 100)} %` : ''}
      </Box>
    );
  return (
    <Box>
      <Typography variant="h2" sx={{ mb: 0.75 }}>
        If you spray
      </Typography>
      {shown.map((c) => (
        <Box
          key={c.coats}
          role="img"
          aria-label={`${sayCoats(c.coats)} coats: ${Math.round(c.under * 100)} % under, ${Math.round(c.inside * 100)} % in, ${Math.round(c.over * 100)} % over`}
          sx={{ display: 'flex', alignItems: 'center', mb: '5px' }}
        >
          <Typography
            variant="h3"
            component="span"
            sx={{
              width: 40,
              ...(c.coats === advice.spray ? { boxShadow: `inset 4px 0 ${tones.pick}`, pl: '9px' } : { pl: '9px' }),
            }}
          >
            {sayCoats(c.coats)}
          </Typography>
          <Box sx={{ display: 'flex', flex: 1, height: 26, background: tones.raised }}>
            {part(c.under, 'under', tones.raised, tones.ink)}
            {part(c.inside, 'in', tones.ink, tones.page)}
            {part(c.over, 'over', tones.danger, tones.onDanger)}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
