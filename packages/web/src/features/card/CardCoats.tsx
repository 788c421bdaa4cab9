import { Box, Button, Typography, useTheme } from '@mui/material';
import type { Job, JobDetail } from '@steady-gleam/contracts';
import { countOf, countsControl, withCount, withRecipe } from '@steady-gleam/core/finishes';
import { countCoats, sayCoats } from '../../shared/jobModel';
import { useChangeJob } from '../../shared/useJob';
import type { CardCount } from './useCardCount';

/** Coats of the job's own mix that are planned, and the half step nearest to what its card says; null when there is nothing to lay anew. */
export function cardCoats(
  job: Pick<Job, 'family' | 'mixId' | 'pick' | 'stacks' | 'status'>,
  best: number,
): { readonly planned: number; readonly lay: number; readonly change: Pick<Job, 'pick' | 'stacks'> } | null {
  if (!job.pick || job.status === 'finished') return null;
  const own = (job.stacks ?? []).flatMap((s) => s.layers).filter((l) => l.materialId === job.mixId);
  // On a piece with the mix in several layers it is the painter who knows which of them the card stands for.
  if (job.stacks && own.length !== 1 && !countsControl(job.family)) return null;
  const planned = job.stacks ? own.reduce((sum, l) => sum + l.coats, 0) : countOf(job.family, job.pick);
  const lay = Math.max(0.5, Math.round(best * 2) / 2);
  if (Math.abs(lay - planned) < 1e-6) return null;
  const pick = withCount(job.family, job.pick, lay);
  const stacks = job.stacks?.map((s) => {
    if (countsControl(job.family)) return { ...s, layers: withRecipe(s.layers, job.mixId, pick) };
    return { ...s, layers: s.layers.map((l) => (l.materialId === job.mixId ? { ...l, coats: lay } : l)) };
  });
  return { planned, lay, change: { pick, stacks: stacks ?? null } };
}

/** Whether the card has spoken, by readings or by eye. */
export const spoke = (count: CardCount): boolean => !!count.card?.fit || !!count.answer?.eye;

/** Said where coats are planned: the card's count differs, and one tap lays that instead. */
export function CardCoats({ detail, count }: { detail: JobDetail; count: CardCount }) {
  const { tones } = useTheme();
  const { job } = detail;
  const change = useChangeJob(job.id);
  const found = count.best !== null && spoke(count) ? cardCoats(job, count.best) : null;
  if (!found) return null;
  return (
    <Box
      role="status"
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 1.5,
        borderLeft: `4px solid ${tones.pick}`,
        pl: 1.25,
        mb: 1.25,
      }}
    >
      <Typography sx={{ flex: 1 }}>
        {countCoats(found.planned)} {found.planned > 1 ? 'are' : 'is'} planned; your card says {count.best!.toFixed(1)}.
        {change.error ? ` ${change.error.message}` : ''}
      </Typography>
      <Button
        variant="outlined"
        disabled={change.isPending}
        onClick={() => change.mutate({ version: job.version, ...found.change, pick: found.change.pick! })}
        sx={{ flex: 'none' }}
      >
        Plan {sayCoats(found.lay)}
      </Button>
    </Box>
  );
}
