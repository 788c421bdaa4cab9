import { Box, Button, Typography, useTheme } from '@mui/material';
import {
  describeDifference,
  filmSection,
  findCarrier,
  findGround,
  findSystem,
  STYLES,
  totalFilmUm,
  type MapCell,
  type TargetAngle,
} from '@steady-gleam/core';
import type { Job } from '@steady-gleam/contracts';
import { FIGURES } from '../../app/theme';
import { FlopStrip } from '../../shared/FlopStrip';
import { countCoats } from '../../shared/jobModel';
import { useLibrary } from '../../shared/library';
import type { Mix } from '../../worker/compute';

/** Transfer efficiency of an HVLP gun: 65 %, common practice (no source). */
const TRANSFER = 0.65;

interface ProbePanelProps {
  readonly job: Job;
  readonly mix: Mix;
  readonly cell: MapCell;
  readonly groundId: string;
  readonly target: readonly TargetAngle[];
  readonly note: string | null;
  readonly busy: boolean;
  readonly onUse: () => void;
}

/** What follows from the place under the probe. */
export function ProbePanel({ job, mix, cell, groundId, target, note, busy, onUse }: ProbePanelProps) {
  const { tones } = useTheme();
  const { library } = useLibrary();
  const system = findSystem(job.systemId, library.systems);
  const ground = findGround(groundId, library.grounds);
  const carrier = findCarrier(system.carrierId, library.carriers);
  const perCoat = STYLES[mix.style].film;
  const control = mix.controlCoat ? STYLES.control.film : 0;
  const film = cell.coats * perCoat + control;
  const layers = filmSection(ground, system, cell.coats, film / cell.coats);
  const effectUm = film * system.filmUm;
  const minutes = Math.ceil(cell.coats + (mix.controlCoat ? 1 : 0)) * system.flashMinutes;
  // Litres on a square metre: dry film over solids, over what lands.
  const litresPerM2 = effectUm / 1000 / carrier.volumeSolids / TRANSFER;
  const line = (name: string, value: string, unit: string) => (
    <Box
      sx={{ display: 'flex', justifyContent: 'space-between', py: 0.4, borderBottom: `1px solid ${tones.hairline}` }}
    >
      <span>{name}</span>
      <Box component="span" sx={{ fontFamily: FIGURES }}>
        {value} {unit}
      </Box>
    </Box>
  );
  return (
    <>
      <Box>
        <Typography variant="h2" data-testid="probe">
          At {countCoats(cell.coats)} over {ground.name.toLowerCase()}
        </Typography>
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          target above, prediction below
        </Typography>
      </Box>
      <FlopStrip
        angles={target.map((t) => t.aspecular)}
        target={target.map((t) => t.lab)}
        sample={cell.labs}
        height={104}
        label="Target over prediction, from face to flop"
      />
      <Box
        component="table"
        aria-label="Difference per angle"
        sx={{
          borderCollapse: 'collapse',
          width: '100%',
          '& td, & th': {
            py: '3.5px',
            borderBottom: `1px solid ${tones.hairline}`,
            fontSize: 15,
            fontWeight: 400,
            textAlign: 'left',
          },
        }}
      >
        <thead>
          <tr>
            <th scope="col">angle</th>
            <th scope="col" style={{ textAlign: 'right', paddingRight: 14 }}>
              dE00
            </th>
            <th scope="col">prediction is</th>
          </tr>
        </thead>
        <tbody>
          {target.map((t, g) => {
            const d = cell.score.differences[g]!;
            return (
              <tr key={t.aspecular}>
                <td>{t.aspecular}°</td>
                <Box
                  component="td"
                  sx={{
                    fontFamily: FIGURES,
                    textAlign: 'right !important',
                    pr: '14px !important',
                    whiteSpace: 'nowrap',
                  }}
                >
                  {d <= t.tolerance ? '' : '✕ '}
                  {d.toFixed(2)}
                </Box>
                <td>{describeDifference(t.lab, cell.labs[g]!).text}</td>
              </tr>
            );
          })}
        </tbody>
      </Box>
      <Box sx={{ fontSize: 15 }}>
        {line('effect film', effectUm.toFixed(0), 'µm')}
        {line('whole build', totalFilmUm(layers).toFixed(0), 'µm')}
        {line('flash in all, 20 °C', minutes.toFixed(0), 'min')}
        {line('effect mix', (litresPerM2 * 1000).toFixed(0), 'ml/m²')}
        {line('its cost, demo price', (litresPerM2 * system.pricePerLitre).toFixed(2), 'per m²')}
      </Box>
      <Button variant="contained" onClick={onUse} disabled={busy} sx={{ minHeight: 52, mt: 'auto' }}>
        Pick this, plan the card
      </Button>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        A screen is not a proof. {note}
      </Typography>
    </>
  );
}
