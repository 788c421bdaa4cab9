import { Box, Typography, useTheme } from '@mui/material';
import { firstChoices, type CardSaid } from '@steady-gleam/core/letdown';
import { FIGURES } from '../../app/theme';
import { sayCoats } from '../../shared/jobModel';

/** Chances of ending under, in or over the window for the half coats around the advice. */
export function ChancesBars({ card, spray }: { card: CardSaid; spray: number }) {
  const { tones } = useTheme();
  const choices = firstChoices(card);
  const at = choices.findIndex((c) => c.coats === spray);
  const shown = choices.slice(Math.max(0, at - 1), Math.max(0, at - 1) + 4);
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
      {shown.map(({ coats, chances: c }) => (
        <Box
          key={coats}
          role="img"
          aria-label={`${sayCoats(coats)} coats: ${Math.round(c.under * 100)} % under, ${Math.round(c.in * 100)} % in, ${Math.round(c.over * 100)} % over`}
          sx={{ display: 'flex', alignItems: 'center', mb: '5px' }}
        >
          <Typography
            variant="h3"
            component="span"
            sx={{
              width: 40,
              ...(coats === spray ? { boxShadow: `inset 4px 0 ${tones.pick}`, pl: '9px' } : { pl: '9px' }),
            }}
          >
            {sayCoats(coats)}
          </Typography>
          <Box sx={{ display: 'flex', flex: 1, height: 26, background: tones.raised }}>
            {part(c.under, 'under', tones.raised, tones.ink)}
            {part(c.in, 'in', tones.ink, tones.page)}
            {part(c.over, 'over', tones.danger, tones.onDanger)}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
