import { Box } from '@mui/material';
import type { Job, ToldColours } from '@steady-gleam/contracts';
import type { Recipe, StackLayer } from '@steady-gleam/core/finishes';
import { type LayerFilm, shownStacks } from '@steady-gleam/core/jobs';
import { filmFigures } from './filmFigures';
import { FilmStrip } from './FilmStrip';
import { useStacks } from './useStacks';

interface FilmSectionProps {
  readonly job: Pick<Job, 'id' | 'mixId' | 'stacks'>;
  readonly pick: Recipe;
  /** What is on and what is planned, by layer, as the job's log has it; null while nothing is picked. */
  readonly film: readonly LayerFilm[] | null;
  /** Nothing is picked yet: every block is a guess and hatched. */
  readonly planned: boolean;
  /** Looks of its layers as the server has told them. */
  readonly told: ToldColours;
}

/** The layers of a job from substrate to clear, as wide as their dry film; a stack below the other on a two-tone piece. */
export function FilmSection({ job, pick, film, planned, told }: FilmSectionProps) {
  const shown = shownStacks(film, useStacks(job, pick));
  const builds = shown.map((s) => filmFigures(s.layers, film).totalUm);
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', width: '100%', minWidth: 0, gap: '2px' }}>
      {shown.map((stack, i) => (
        <FilmStrip
          key={stack.id}
          // A thin tone is drawn as thin as it is beside a thick one.
          ofWidth={builds[i]! / Math.max(...builds)}
          layers={stack.layers}
          film={film}
          told={told}
          pickedMix={planned ? null : job.mixId}
          height={Math.floor(34 / shown.length)}
          names={shown.length === 1}
          linkTo={(l: StackLayer) => `/jobs/${job.id}/layers?layer=${l.id}`}
        />
      ))}
    </Box>
  );
}

/** The first stack of a job, small and without names, for a list. */
export function FilmLine({ job, pick, film, planned, told }: FilmSectionProps) {
  const { layers } = shownStacks(film, useStacks(job, pick))[0]!;
  return (
    <FilmStrip
      layers={layers}
      film={film}
      told={told}
      pickedMix={planned ? null : job.mixId}
      height={22}
      names={false}
    />
  );
}
