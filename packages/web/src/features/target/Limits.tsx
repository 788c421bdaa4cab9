import { Box, Button, OutlinedInput, ToggleButton, ToggleButtonGroup, Typography, useTheme } from '@mui/material';
import { limitsSchema, type Job } from '@steady-gleam/contracts';
import { BLEND_WIDER, FAMILIES, limitAt, USUAL_LIMIT_SOURCE, type Meeting } from '@steady-gleam/core/finishes';
import { noiseOf, targetNoise } from '@steady-gleam/core/letdown';
import type { TargetAngle } from '@steady-gleam/core/matching';
import { useState } from 'react';
import { ValidationError } from 'yup';
import { FIGURES } from '../../app/theme';
import { Field } from '../../shared/Field';
import { numberIn } from '../../shared/numberIn';
import { useChangeJob } from '../../shared/useJob';
import { sayNotProven } from './limitsModel';

/** How far off each angle may be, edge to edge or blended, with where that comes from and the target's own noise beside it. */
export function Limits({
  job,
  target,
  spots,
  scatter,
}: {
  job: Job;
  target: readonly TargetAngle[];
  spots: number;
  /** Of the painter's repeated spots, Lab units; null where none was repeated. */
  scatter: number | null;
}) {
  const { tones } = useTheme();
  const change = useChangeJob(job.id);
  const usual = FAMILIES[job.family].limits;
  const [typed, setTyped] = useState<Readonly<Record<number, string>>>({});
  const [source, setSource] = useState(job.limits?.source ?? '');
  const [fault, setFault] = useState<Readonly<Record<string, string>>>({});
  const meeting = job.limits?.meeting ?? 'edge';
  const edge = (aspecular: number) => limitAt(aspecular, usual, job.limits ? { ...job.limits, meeting: 'edge' } : null);
  const noise = targetNoise({
    angles: target,
    spots,
    sameInstrument: true,
    noise: noiseOf(
      scatter,
      target.map((t) => t.lab[0]),
    ),
  });
  const changed = Object.keys(typed).length > 0 || source !== (job.limits?.source ?? '');
  const keep = (next: Meeting) => {
    const own = target
      .map(({ aspecular }) => ({
        aspecular,
        limit: typed[aspecular] === undefined ? edge(aspecular) : numberIn(typed[aspecular]),
      }))
      .filter((o) => o.limit !== usual[o.aspecular]);
    try {
      const limits = limitsSchema.validateSync({ meeting: next, own, source }, { abortEarly: false });
      setFault({});
      change.mutate({ version: job.version, limits });
    } catch (error) {
      if (!(error instanceof ValidationError)) throw error;
      setFault(
        Object.fromEntries(
          error.inner.map((e) => {
            const at = /own\[(\d+)\]/.exec(e.path ?? '')?.[1];
            return [at === undefined ? 'source' : String(own[Number(at)]!.aspecular), e.message];
          }),
        ),
      );
    }
  };
  const unproven = target.length ? sayNotProven(target, noise, spots) : null;
  return (
    <Box component="section" aria-label="Limits" sx={{ mt: 2, maxWidth: 720 }}>
      <Typography variant="h2" sx={{ mb: 0.75 }}>
        Limits
      </Typography>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 3, alignItems: 'start' }}>
        <Box
          component="table"
          sx={{
            width: '100%',
            borderCollapse: 'collapse',
            '& th': { fontWeight: 400, fontSize: 13.5, textAlign: 'right' },
            '& td': { textAlign: 'right', fontFamily: FIGURES, py: 0.25, borderTop: `1px solid ${tones.hairline}` },
            '& th:first-of-type, & td:first-of-type': { textAlign: 'left' },
          }}
        >
          <thead>
            <tr>
              <th scope="col">angle</th>
              <th scope="col">edge to edge, dE00</th>
              <th scope="col">target’s noise</th>
            </tr>
          </thead>
          <tbody>
            {target.map((t, g) => (
              <tr key={`${t.incidence}/${t.aspecular}`}>
                <td>{t.aspecular}°</td>
                <td>
                  <OutlinedInput
                    value={typed[t.aspecular] ?? String(edge(t.aspecular))}
                    onChange={(e) => setTyped({ ...typed, [t.aspecular]: e.target.value })}
                    error={fault[t.aspecular] !== undefined}
                    inputProps={{ 'aria-label': `Limit at ${t.aspecular} degrees`, inputMode: 'decimal' }}
                    sx={{ width: 70, '& input': { py: 0.75, px: 1, textAlign: 'right' } }}
                  />
                  {fault[t.aspecular] ? (
                    <Typography variant="body2" role="alert" sx={{ color: 'error.main' }}>
                      {fault[t.aspecular]}
                    </Typography>
                  ) : null}
                </td>
                <td>±{noise[g]!.toFixed(1)}</td>
              </tr>
            ))}
          </tbody>
        </Box>
        <Box sx={{ display: 'grid', gap: 1.5 }}>
          <ToggleButtonGroup
            exclusive
            fullWidth
            value={meeting}
            aria-label="How it meets the rest"
            disabled={change.isPending}
            onChange={(_, v: Meeting | null) => v && keep(v)}
          >
            <ToggleButton value="edge">Edge to edge</ToggleButton>
            <ToggleButton value="blend">Blended, {BLEND_WIDER}×</ToggleButton>
          </ToggleButtonGroup>
          <Field
            label="Where they come from"
            value={source}
            error={fault['source']}
            hint={source ? '' : `Empty: ${USUAL_LIMIT_SOURCE}`}
            onChange={(e) => setSource(e.target.value)}
          />
          {unproven ? (
            <Typography sx={{ borderLeft: `4px solid ${tones.danger}`, pl: 1.25 }}>{unproven}</Typography>
          ) : null}
          {change.error ? (
            <Typography role="alert" sx={{ color: 'error.main' }}>
              {change.error.message}
            </Typography>
          ) : null}
          {changed ? (
            <Box>
              <Button variant="outlined" disabled={change.isPending} onClick={() => keep(meeting)}>
                Keep these limits
              </Button>
            </Box>
          ) : null}
        </Box>
      </Box>
    </Box>
  );
}
