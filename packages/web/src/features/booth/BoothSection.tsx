import { Box, Typography, useTheme } from '@mui/material';

import { filmOf, type JobPlan, type JobState } from '@steady-gleam/core/jobs';
import { sayCoat } from '@steady-gleam/core/spraying';
import { FIGURES } from '../../app/theme';
import type { ToldColours } from '@steady-gleam/contracts';
import { useLayerColours } from '../../shared/film/useLayerColours';
import { cssOf } from '../../shared/screenColour';
import { useUnits } from '../../shared/units';
import { capital } from '../../shared/capital';

/** The film section, coat by coat: solid as far as it is on, hatched for what is planned, the next one framed. */
export function BoothSection({ plan, state, told }: { plan: JobPlan; state: JobState; told: ToldColours }) {
  const { tones } = useTheme();
  const units = useUnits();
  const { layers } = plan;
  const looks = useLayerColours(layers, told);
  const colour = (layerId: string): string => {
    const i = layers.findIndex((l) => l.id === layerId);
    const lab = looks?.[i];
    const kind = layers[i]?.kind;
    return lab && (kind === 'ground' || kind === 'effect') ? cssOf(lab) : kind === 'clear' ? '#c9c9c9' : '#85847e';
  };
  // Cells of one coat side by side, those that are left out not among them.
  const blocks = new Map<string, JobState['cells'][number][]>();
  for (const s of state.cells)
    if (s.leftOut === null || s.sprayedAt !== null)
      blocks.set(s.cell.coatId, [...(blocks.get(s.cell.coatId) ?? []), s]);
  const next = state.next?.is === 'cell' ? state.next.state.cell.coatId : null;
  const filled = (cells: JobState['cells']) => cells.filter((s) => s.sprayedAt !== null).length / cells.length;
  const film = filmOf(plan, state);
  const sum = (key: 'onUm' | 'plannedUm') => film.reduce((total, f) => total + f[key], 0);
  const list = [...blocks.values()];
  return (
    <>
      <Box
        role="img"
        aria-label={`Film section: ${list.map((cells) => `${capital(sayCoat(cells[0]!.cell.coat))} ${Math.round(filled(cells) * 100)} % sprayed`).join('; ')}`}
        sx={{ display: 'flex', flex: 'none', mx: 3, mt: 1.5, height: 42 }}
      >
        {list.map((cells) => {
          const { cell } = cells[0]!;
          const css = colour(cell.layerId);
          return (
            <Box
              key={cell.coatId}
              sx={{
                flex: `${cell.coat.filmUm} 1 0`,
                minWidth: 8,
                position: 'relative',
                outline: cell.coatId === next ? `3px solid ${tones.pick}` : 'none',
                outlineOffset: -3,
                zIndex: cell.coatId === next ? 1 : 0,
                background: `repeating-linear-gradient(135deg, ${css} 0 3px, ${tones.page} 3px 9px)`,
              }}
            >
              <Box
                sx={{ position: 'absolute', inset: '0 auto 0 0', width: `${filled(cells) * 100}%`, background: css }}
              />
            </Box>
          );
        })}
      </Box>
      <Typography data-testid="film" sx={{ mx: 3, mt: 0.5, fontFamily: FIGURES }}>
        {units.figure('film', sum('onUm'))} of {units.say('film', sum('plannedUm'))}
      </Typography>
    </>
  );
}
