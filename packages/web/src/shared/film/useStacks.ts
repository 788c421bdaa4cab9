import type { Job } from '@steady-gleam/contracts';
import type { PieceStack, Recipe } from '@steady-gleam/core/finishes';
import { stacksOfPick } from '@steady-gleam/core/jobs';
import { useLibrary } from '../library';

/** The stacks of a job: as its painter set them, or as they follow from the pick. */
export function useStacks(job: Pick<Job, 'mixId' | 'stacks'>, pick: Recipe): readonly PieceStack[] {
  const { library } = useLibrary();
  return job.stacks ?? stacksOfPick(job.mixId, pick, library);
}
