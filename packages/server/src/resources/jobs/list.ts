import type { jobsApi, JobQuery, JobSummary, ReplyOf } from '@steady-gleam/contracts';
import { CoreError } from '@steady-gleam/core/errors';
import { filmOf, jobState, runOf, workOfJob, type JobPlan } from '@steady-gleam/core/jobs';
import { libraryOf } from '@steady-gleam/core/materials';
import type { Repos } from '../repos';
import type { Listed } from './repo';

/**
 * Lists a page of the jobs, each with where it stands. A job is planned once, and again only when something changes that
 * its plan follows from: the list itself plans nothing.
 */
export function createJobsList(
  q: Pick<Repos, 'jobs' | 'cards' | 'materials' | 'products' | 'guns' | 'batches' | 'log'>,
): {
  readonly list: (query: JobQuery) => Promise<ReplyOf<typeof jobsApi.list>>;
  /** One of them. */
  readonly stands: (id: string) => Promise<JobSummary>;
} {
  const plans = new Map<string, { readonly key: string; readonly plan: JobPlan | null }>();
  const withRuns = async (listed: readonly Listed[]): Promise<JobSummary[]> => {
    const logs = await q.log.ofJobs(listed.map((j) => j.id));
    const [own, products, guns, cards] = await Promise.all([
      q.materials.list(),
      q.products.list(),
      q.guns.list(),
      q.cards.byFinish(listed.map((j) => j.finishId)),
    ]);
    const versions = [
      own.map((m) => [m.material.id, m.version]),
      products.map((p) => [p.product.id, p.version]),
      guns.map((g) => [g.gun.id, g.version]),
    ];
    const planOf = (job: Listed): JobPlan | null => {
      const card = cards.get(job.finishId) ?? null;
      const key = JSON.stringify([job.version, job.finishId, card?.id, card?.version, card?.firstStop, versions]);
      const known = plans.get(job.id);
      if (known?.key === key) return known.plan;
      let plan: JobPlan | null = null;
      try {
        const work = workOfJob({
          job,
          card,
          library: libraryOf(own.map((m) => m.material)),
          products: products.map((p) => p.product),
          guns: guns.map((g) => g.gun),
        });
        plan = work?.plan ?? null;
      } catch (error) {
        // A material that can't be read any more costs the job its line of the run, not the whole list.
        if (!(error instanceof CoreError)) throw error;
      }
      plans.set(job.id, { key, plan });
      return plan;
    };
    return listed.map((job) => {
      const plan = planOf(job);
      if (!plan) return { ...job, run: null, film: null };
      const state = jobState(plan, logs.get(job.id) ?? []);
      return { ...job, run: runOf(plan, state), film: filmOf(plan, state) };
    });
  };
  const cups = (ids: readonly string[]) => q.batches.countByJob(ids);
  return {
    list: async (query) => {
      const page = await q.jobs.list(query, cups);
      return { ...page, rows: await withRuns(page.rows) };
    },
    stands: async (id) => (await withRuns([await q.jobs.listed(id, cups)]))[0]!,
  };
}
