import { libraryOf, workOfJob, type JobSummary, type RunState } from '@steady-gleam/contracts';
import { CoreError, foldRun, sayCoat, type BoothEvent } from '@steady-gleam/core';
import type { BoothRepo } from '../db/boothRepo';
import type { MaterialsRepo } from '../db/materialsRepo';
import type { Repo } from '../db/repo';
import type { ShopRepo } from '../db/shopRepo';

/** The jobs, each with where it is in the booth; plans are worked out for jobs that are being sprayed only. */
export async function jobsList(q: {
  readonly repo: Pick<Repo, 'listJobs'>;
  readonly materials: Pick<MaterialsRepo, 'list'>;
  readonly shop: Pick<ShopRepo, 'listProducts' | 'listGuns'>;
  readonly booth: Pick<BoothRepo, 'ofOpenJobs'>;
}): Promise<JobSummary[]> {
  const [jobs, logs] = await Promise.all([q.repo.listJobs(), q.booth.ofOpenJobs()]);
  if (!logs.size) return jobs.map((job) => ({ ...job, run: null }));
  const [own, products, guns] = await Promise.all([q.materials.list(), q.shop.listProducts(), q.shop.listGuns()]);
  const shelf = {
    library: libraryOf(own.map((m) => m.material)),
    products: products.map((p) => p.product),
    guns: guns.map((g) => g.gun),
  };
  // A material that can't be read any more costs the job its line of the run, not the whole list.
  const workOf = (job: Omit<JobSummary, 'run'>) => {
    try {
      return workOfJob({ job, ...shelf });
    } catch (error) {
      if (error instanceof CoreError) return null;
      throw error;
    }
  };
  const runOf = (job: Omit<JobSummary, 'run'>, events: readonly BoothEvent[] | undefined): RunState | null => {
    const work = events ? workOf(job) : null;
    if (!work) return null;
    const { coats, order, runs } = work.plan;
    const { next, readyAt, closesAt, started, done } = foldRun(runs, events!);
    if (started === null) return null;
    const coat = coats.find((c) => c.id === next?.coatId);
    const piece = order.find((p) => p.id === next?.pieceId);
    return {
      done,
      total: runs.length,
      next: coat && piece ? `${sayCoat(coat)} on ${piece.name}` : null,
      readyAt,
      closesAt,
    };
  };
  return jobs.map((job) => ({ ...job, run: runOf(job, logs.get(job.id)) }));
}
