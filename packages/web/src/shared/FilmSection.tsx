import { Box, useTheme } from '@mui/material';
import { filmSection, findGround, findSystem, totalFilmUm, type FilmLayer } from '@steady-gleam/core';
import type { Choice, Job } from '@steady-gleam/contracts';
import { useCompute } from '../worker/useCompute';
import { FIGURES } from '../app/theme';
import { useLibrary } from './library';
import { cssOf } from './screenColour';
import { sayCoats } from './jobModel';

const PLAIN_FILL = { sealer: '#8d8c86', clear: '#d9d9d9' } as const;

interface FilmSectionProps {
  readonly job: Pick<Job, 'systemId' | 'status'>;
  readonly choice: Choice;
  /** Nothing is picked yet: every block is a guess and hatched. */
  readonly planned: boolean;
  readonly compact?: boolean;
}

/** The layers of a job from substrate to clear, as wide as their dry film. */
export function FilmSection({ job, choice, planned, compact = false }: FilmSectionProps) {
  const theme = useTheme();
  const mix = {
    systemId: job.systemId,
    strength: choice.strength,
    style: choice.style,
    controlCoat: choice.controlCoat,
  };
  const { value } = useCompute(JSON.stringify(['section', mix, choice.groundId, choice.coats]), (c) =>
    c.sectionColours(mix, choice.groundId, choice.coats),
  );
  const scale = value && choice.coats > 0 ? value.film / choice.coats : 1;
  const { library } = useLibrary();
  const ground = findGround(choice.groundId, library.grounds);
  const system = findSystem(job.systemId, library.systems);
  const layers = filmSection(ground, system, choice.coats, scale);
  const total = totalFilmUm(layers);
  const fill = (l: FilmLayer): string => {
    if (l.kind === 'ground') return value ? cssOf(value.ground) : '#9b9b9b';
    if (l.kind === 'effect') return value ? cssOf(value.effect) : '#9b9b9b';
    return PLAIN_FILL[l.kind];
  };
  const flaked = (l: FilmLayer) => (l.kind === 'effect' && !!system.flake) || (l.kind === 'ground' && !!ground.flakes);
  const sprayed = job.status === 'finished';
  const text = (l: FilmLayer) =>
    l.coats === 1 ? `${l.kind} ${l.filmUm.toFixed(0)}` : `${l.kind} ${sayCoats(l.coats)}×${l.filmUm.toFixed(0)}`;
  return (
    <Box
      role="img"
      aria-label={`Film section: ${layers.map((l) => `${l.name}, ${sayCoats(l.coats)} × ${l.filmUm.toFixed(0)} µm`).join('; ')}; total ${total.toFixed(0)} µm${sprayed ? ', sprayed' : ', planned'}`}
      sx={{ display: 'flex', alignItems: 'flex-end', gap: 1.5, minWidth: 0, width: '100%' }}
    >
      <Box sx={{ display: 'flex', flex: 1, minWidth: 0 }}>
        {layers.map((l) => (
          <Box key={l.kind} sx={{ flex: `${l.coats * l.filmUm} 1 0`, minWidth: compact ? 6 : 82 }}>
            {compact ? null : (
              <Box
                sx={{
                  fontFamily: 'h3.fontFamily',
                  fontStretch: '78%',
                  fontSize: 13.5,
                  fontWeight: 500,
                  whiteSpace: 'nowrap',
                  mb: 0.3,
                }}
              >
                {text(l)} µm
              </Box>
            )}
            <Box sx={{ height: compact ? 22 : 34, position: 'relative', background: fill(l) }}>
              <svg width="100%" height="100%" style={{ position: 'absolute', inset: 0 }} aria-hidden>
                <defs>
                  <pattern
                    id={`grain-${l.kind}`}
                    width="17"
                    height="9"
                    patternUnits="userSpaceOnUse"
                    patternTransform="rotate(4)"
                  >
                    <path d="M1 2h6M10 6h5M4 8h3" stroke="#fff" strokeOpacity=".6" strokeWidth="1" />
                  </pattern>
                  <pattern
                    id="planned"
                    width="7"
                    height="7"
                    patternUnits="userSpaceOnUse"
                    patternTransform="rotate(45)"
                  >
                    <path d="M0 0v7" stroke="#000" strokeOpacity=".34" strokeWidth="1" />
                  </pattern>
                </defs>
                {flaked(l) ? <rect width="100%" height="100%" fill={`url(#grain-${l.kind})`} /> : null}
                {sprayed ? null : <rect width="100%" height="100%" fill="url(#planned)" />}
                {l.kind === 'effect' && !planned ? (
                  <rect
                    x="1.5"
                    y="1.5"
                    width="calc(100% - 3px)"
                    height="calc(100% - 3px)"
                    fill="none"
                    stroke={theme.tones.pick}
                    strokeWidth="3"
                  />
                ) : null}
              </svg>
            </Box>
          </Box>
        ))}
      </Box>
      <Box
        sx={{
          fontFamily: FIGURES,
          fontSize: compact ? 13 : 15,
          whiteSpace: 'nowrap',
          lineHeight: compact ? '22px' : '34px',
        }}
      >
        {total.toFixed(0)} µm
      </Box>
    </Box>
  );
}
