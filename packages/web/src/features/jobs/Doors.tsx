import { Box, Typography, useTheme } from '@mui/material';
import type { JobSummary } from '@steady-gleam/contracts';
import { useId, type ReactNode } from 'react';
import { Link } from 'react-router';
import { FilmLine } from '../../shared/film/FilmSection';
import { isPicked, pickOf } from '../../shared/jobModel';

/** Colours of the pictures, invented: a lagoon ladder and a candy body. */
const RUNGS = ['#e4e6df', '#bcd9d2', '#86c6c0', '#4fb0b0', '#2b949c', '#177684', '#0d5a6c'];
const MATCHED = 4;

/** A card of rungs beside what is matched, the one that meets it marked. */
function LadderMark() {
  const { tones } = useTheme();
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', height: 56 }}>
      <Box sx={{ flex: 1, background: RUNGS[MATCHED] }} />
      <Box sx={{ flex: 1.6, display: 'flex' }}>
        {RUNGS.map((colour, i) => (
          <Box
            key={colour}
            sx={{ flex: 1, background: colour, boxShadow: i === MATCHED ? `inset 0 0 0 3px ${tones.pick}` : 'none' }}
          />
        ))}
      </Box>
    </Box>
  );
}

/** A curved body under one lamp, as a look is judged. */
function BodyMark() {
  return (
    <Box
      sx={{
        height: 56,
        background:
          'linear-gradient(90deg, #2a0308 0%, #5e0711 16%, #b3121f 34%, #f3614f 46%, #ffd9c4 51%, #ee5443 56%, #a80f1d 70%, #4d060e 88%, #230206 100%)',
      }}
    />
  );
}

function Door({ to, name, children, picture }: { to: string; name: string; children: string; picture: ReactNode }) {
  const { tones } = useTheme();
  const id = useId();
  return (
    <Box
      component={Link}
      to={to}
      aria-labelledby={`${id}-name`}
      aria-describedby={`${id}-said`}
      sx={{
        ...{ display: 'block', background: tones.raised, color: 'inherit', textDecoration: 'none' },
        '&:hover .door-name, &:focus-visible .door-name': { borderBottomColor: tones.pick },
      }}
    >
      <div aria-hidden>{picture}</div>
      <Box sx={{ p: '10px 14px 12px' }}>
        <Typography variant="h2" component="div">
          <Box
            component="span"
            id={`${id}-name`}
            className="door-name"
            sx={{ borderBottom: `3px solid ${tones.hairline}`, transition: 'border-color .1s' }}
          >
            {name}
          </Box>
        </Typography>
        <Typography variant="body2" sx={{ mt: 0.75 }} id={`${id}-said`}>
          {children}
        </Typography>
      </Box>
    </Box>
  );
}

/** What the first start greets with: three ways in. @param demo jobs of the demo, to look round in */
export function Doors({ demo }: { demo: readonly JobSummary[] }) {
  const shown = demo.find((job) => isPicked(job)) ?? demo[0];
  return (
    <Box component="section" aria-label="Where to begin" sx={{ mb: 2 }}>
      <Box sx={{ display: 'grid', gap: 2, gridTemplateColumns: `repeat(${shown ? 3 : 2}, 1fr)` }}>
        <Door to="/jobs/new" name="Match something" picture={<LadderMark />}>
          Something stands there and a new piece has to look like it: read it, or take a photo with a grey card.
        </Door>
        <Door to="/jobs/new?design=1" name="Design a look" picture={<BodyMark />}>
          Nothing to match: go over grounds and coats until the look is the one you want, and prove it on a card.
        </Door>
        {shown ? (
          <Door
            to={`/jobs/${shown.id}/map`}
            name="Look round the demo"
            picture={
              <Box sx={{ height: 56, display: 'flex', alignItems: 'center', px: 1.75 }}>
                <Box sx={{ flex: 1 }}>
                  <FilmLine
                    job={shown}
                    pick={pickOf(shown)}
                    film={shown.film}
                    planned={!isPicked(shown)}
                    told={shown.colours}
                  />
                </Box>
              </Box>
            }
          >
            {`An invented workshop with jobs at every step. Begin with ${shown.piece}: every ground and every count against its target.`}
          </Door>
        ) : null}
      </Box>
      <Typography sx={{ mt: 1.25 }}>
        Rather try your hand first? Match a panel another hand made, with simulated paint, instrument and scale.{' '}
        <Link to="/try-out" style={{ color: 'inherit', fontWeight: 700, whiteSpace: 'nowrap' }}>
          Begin a try-out
        </Link>
      </Typography>
    </Box>
  );
}
