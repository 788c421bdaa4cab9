import { jobSchema, type FinishName, type Job } from '@steady-gleam/contracts';
import type { PieceStack } from '@steady-gleam/core/finishes';
import type { jobs } from '../../db/schema';
import { toFinish, type FinishRow } from '../finishes/rows';

export type JobRow = typeof jobs.$inferSelect;
/** A job and the finishes it uses, by id. */
export interface JobRows {
  readonly job: JobRow;
  readonly finishes: ReadonlyMap<string, FinishRow>;
  /** The finish it is shown with, one of its own; its first when left out. */
  readonly about?: string | undefined;
}

const finishOf = ({ finishes }: JobRows, id: string) => toFinish(finishes.get(id)!);

/** The layers of a job's finishes as they are laid; null while they follow from the pick. */
export function stacksOf(rows: JobRows): (PieceStack & { finishId: string })[] | null {
  const { finishes: uses } = rows.job;
  if (!rows.finishes.get(uses[0]!.finishId)?.layers) return null;
  return uses.map((u) => ({
    id: u.key,
    name: u.name,
    finishId: u.finishId,
    layers: rows.finishes.get(u.finishId)!.layers ?? [],
  }));
}

/** A job as its pages have it. @throws ValidationError where a row is not what the contract says */
export function toJob(rows: JobRows): Job {
  const { job, about = job.finishes[0]!.finishId } = rows;
  const { id, piece, status, filmLimitUm, objects, areas, mixing, limits, texture, plan, done, invented, version } =
    job;
  const { matching, family, mixId, pick } = finishOf(rows, about);
  const stacks = stacksOf(rows);
  return jobSchema.validateSync({
    ...{ id, piece, status, filmLimitUm, objects, areas, mixing, limits, texture, plan, done, invented, version },
    ...{ finishId: about, matching, family, mixId, pick },
    // With another of its finishes it is about that one's layers alone.
    stacks: about === job.finishes[0]!.finishId ? stacks : (stacks?.filter((s) => s.finishId === about) ?? null),
    tryOut: job.tryOut && { lifted: job.tryOut.lifted },
    removedAt: job.removedAt?.toISOString() ?? null,
    createdAt: job.createdAt.toISOString(),
    updatedAt: job.updatedAt.toISOString(),
  });
}

/** Every finish of a job that has a mix, in the order of its stacks. */
export const finishNames = (rows: JobRows): FinishName[] =>
  rows.job.finishes.flatMap((u) => {
    const { id, name, mixId } = finishOf(rows, u.finishId);
    return mixId === null ? [] : [{ id, name: rows.job.finishes.length > 1 ? u.name : name, mixId }];
  });
