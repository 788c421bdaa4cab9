import { Box, Typography, useTheme } from '@mui/material';
import type { LiveState } from '@steady-gleam/core/letdown';
import { FIGURES } from '../../app/theme';

/** Film of every spot that was looked at against the window, in coats of the card. */
export function FilmBars({
  state,
  window,
  best,
  sprayed,
  inside,
}: {
  state: LiveState;
  window: readonly [number, number];
  best: number;
  sprayed: number;
  /** Some count passes at every angle. */
  inside: boolean;
}) {
  const { tones } = useTheme();
  const widest = Math.max(window[1] * 1.3, ...state.spots.map((s) => s.film * 1.1), sprayed * state.session * 1.1);
  const x = (n: number) => `${(100 * n) / widest}%`;
  const rows = state.spots.length
    ? state.spots
    : [
        {
          spot: 'all over',
          film: sprayed * state.session,
          sd: state.sessionSd * Math.max(0.5, sprayed),
          zone: 'again' as const,
        },
      ];
  return (
    <Box
      role="img"
      aria-label={`Film in coats of the card: window ${window[0].toFixed(1)} to ${window[1].toFixed(1)}, best ${best.toFixed(1)}; ${state.spots.map((s) => `${s.spot} ${s.film.toFixed(1)}`).join(', ') || `about ${(sprayed * state.session).toFixed(1)} sprayed`}`}
      sx={{ borderTop: `1px solid ${tones.hairline}`, pt: 1 }}
    >
      {rows.map((s) => (
        <Box
          key={s.spot}
          sx={{ display: 'grid', gridTemplateColumns: '130px 1fr 74px', alignItems: 'center', minHeight: 52 }}
        >
          <Typography variant="h3" component="span" noWrap>
            {s.spot}
          </Typography>
          <Box sx={{ position: 'relative', height: 46, background: tones.panel }}>
            <Box
              sx={{
                position: 'absolute',
                left: x(window[0]),
                width: x(window[1] - window[0]),
                top: -6,
                bottom: -6,
                border: `2px solid ${tones.pick}`,
              }}
            />
            <Box
              sx={{
                position: 'absolute',
                inset: '0 auto 0 0',
                width: x(s.film),
                background: s.zone === 'over' ? tones.danger : tones.ink,
                opacity: s.zone === 'short' ? 0.6 : 1,
              }}
            />
            <Box
              sx={{
                position: 'absolute',
                left: x(Math.max(0, s.film - s.sd)),
                width: x(2 * s.sd),
                top: 13,
                height: 4,
                background: tones.raised,
              }}
            />
          </Box>
          <Box sx={{ fontFamily: FIGURES, textAlign: 'right' }}>{s.film.toFixed(1)}</Box>
        </Box>
      ))}
      <Box sx={{ display: 'grid', gridTemplateColumns: '130px 1fr 74px' }} aria-hidden>
        <span />
        <Box sx={{ position: 'relative', height: 24, fontFamily: FIGURES, fontSize: 13.5 }}>
          {Array.from({ length: Math.floor(widest) + 1 }, (_, n) => (
            <span key={n} style={{ position: 'absolute', left: x(n), transform: n ? 'translateX(-50%)' : 'none' }}>
              {n}
            </span>
          ))}
        </Box>
      </Box>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        film in coats of the card; framed: {window[0].toFixed(1)} to {window[1].toFixed(1)},{' '}
        {inside ? 'where it matches' : 'where it comes closest: no count passes at every angle'}; pale: how sure it is
      </Typography>
    </Box>
  );
}
