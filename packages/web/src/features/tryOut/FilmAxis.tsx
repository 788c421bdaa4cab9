import { Box, Typography, useTheme } from '@mui/material';
import { type CurtainSaid } from '@steady-gleam/contracts';
import { FIGURES } from '../../app/theme';
import { axisOf, sayFilm } from './curtainModel';

/** px. */
const [HEIGHT, BAND] = [118, 40] as const;

/** Film from none to too much: the window, what is on, and where the count alone would have ended. */
export function FilmAxis({ said }: { said: CurtainSaid }) {
  const { tones } = useTheme();
  const most = axisOf(said);
  const at = (film: number) => `${(100 * film) / most}%`;
  const marks = [
    ...said.objects.map((o) => ({ film: o.film, name: said.objects.length > 1 ? o.name : 'on the panel', up: true })),
    { film: said.nominal.film, name: 'counted only', up: false },
  ];
  return (
    <Box
      role="img"
      aria-label={`Film axis: ${marks.map((m) => `${m.name} ${sayFilm(m.film)}`).join(', ')}${said.window ? `, window ${sayFilm(said.window[0])} to ${sayFilm(said.window[1])}` : ''}`}
      sx={{ position: 'relative', height: HEIGHT, mt: 2, mx: 6 }}
    >
      <Box
        sx={{
          ...{ position: 'absolute', left: 0, right: 0, top: BAND, height: 30 },
          border: `1px solid ${tones.hairline}`,
          background: tones.panel,
        }}
      />
      {said.window ? (
        <Box
          sx={{
            ...{ position: 'absolute', top: BAND, height: 30, background: tones.raised },
            left: at(said.window[0]),
            width: `calc(${at(said.window[1])} - ${at(said.window[0])})`,
            outline: `3px solid ${tones.ink}`,
          }}
        />
      ) : null}
      {Array.from({ length: Math.floor(most) + 1 }, (_, n) => (
        <Box key={n} sx={{ position: 'absolute', left: at(n), top: BAND + 30, transform: 'translateX(-50%)' }}>
          <Box sx={{ width: '1px', height: 6, background: tones.ink, mx: 'auto' }} />
          <Typography variant="body2" sx={{ fontFamily: FIGURES }}>
            {n}
          </Typography>
        </Box>
      ))}
      {marks.map((m) => (
        <Box
          key={m.name}
          sx={{
            ...{ position: 'absolute', left: at(m.film), transform: 'translateX(-50%)', textAlign: 'center' },
            ...(m.up ? { top: 0 } : { top: BAND + 48 }),
          }}
        >
          {m.up ? null : <Box sx={{ width: 3, height: 6, background: tones.ink, mx: 'auto', mb: '2px' }} />}
          <Typography sx={{ fontWeight: m.up ? 700 : 400, whiteSpace: 'nowrap', lineHeight: '18px' }}>
            {m.name} {sayFilm(m.film)}
          </Typography>
          {m.up ? <Box sx={{ width: 5, height: 50, background: tones.pick, mx: 'auto' }} /> : null}
        </Box>
      ))}
    </Box>
  );
}
