import type { jobsApi, JobQuery, JobSummary, ReplyOf } from '@steady-gleam/contracts';
import { CoreError } from '@steady-gleam/core/errors';
import { filmOf, jobState, runOf, workOfJob, type JobPlan } from '@steady-gleam/core/jobs';
import { setImmediate as othersTurn } from 'node:timers/promises';
import type { Repos } from '../repos';
import type { Listed, Standing } from './repo';
import { shownOf } from './stackColours';

/** Jobs whose standing is kept, whose plans are, and whose logs are read at once. A plan holds every cell, a standing some figures. */
const [MOST_KEPT, MOST_PLANS, AT_ONCE] = [5_000, 100, 8] as const;

/**
 * Lists a page of the jobs, each with where it stands. Where a job stands is worked out again only when something changes that it
 * follows from; a job that is being sprayed is not planned anew for every tap.
 */
export function createJobsList(
  q: Pick<Repos, 'colours' | 'jobs' | 'cards' | 'materials' | 'products' | 'guns' | 'batches' | 'log'>,
): {
  readonly list: (query: JobQuery) => Promise<ReplyOf<typeof jobsApi.list>>;
  /** One of them. */
  readonly stands: (id: string) => Promise<JobSummary>;
} {
  const plans = new Map<string, { readonly key: string; readonly plan: JobPlan | null }>();
  /** Where a job stands, as long as its plan and its log are the same. */
  const standing = new Map<string, { readonly key: string; readonly at: Pick<JobSummary, Standing> }>();
  const withRuns = async (listed: readonly Listed[]): Promise<JobSummary[]> => {
    const [marks, own, products, guns, cards] = await Promise.all([
      q.log.marksOf(listed.map((j) => j.id)),
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
    const shelfKey = JSON.stringify(versions);
    const shop = q.colours.shopOf(own.map((m) => m.material));
    const keyOf = (job: Listed): string => {
      const card = cards.get(job.finishId) ?? null;
      return JSON.stringify([job.version, job.finishId, card?.id, card?.version, card?.firstStop, shelfKey]);
    };
    const planOf = (job: Listed): JobPlan | null => {
      const card = cards.get(job.finishId) ?? null;
      const key = keyOf(job);
      const known = plans.get(job.id);
      // The newest last: what was not asked for longest makes room.
      plans.delete(job.id);
      if (known?.key === key) {
        plans.set(job.id, known);
        return known.plan;
      }
      let plan: JobPlan | null = null;
      try {
        const work = workOfJob({
          job,
          card,
          library: shop.library,
          products: products.map((p) => p.product),
          guns: guns.map((g) => g.gun),
        });
        plan = work?.plan ?? null;
      } catch (error) {
        // A material that can't be read any more costs the job its line of the run, not the whole list.
        if (!(error instanceof CoreError)) throw error;
      }
      plans.set(job.id, { key, plan });
      const [oldest] = plans.keys();
      if (plans.size > MOST_PLANS) plans.delete(oldest!);
      return plan;
    };
    const told = new Map<string, Pick<JobSummary, Standing>>();
    const keys = new Map(listed.map((job) => [job.id, `${keyOf(job)} ${marks.get(job.id) ?? ''}`]));
    const unknown = listed.filter((job) => {
      const known = standing.get(job.id);
      if (known?.key !== keys.get(job.id)) return true;
      told.set(job.id, known!.at);
      return false;
    });
    if (standing.size > MOST_KEPT) standing.clear();
    // Some at a time: a list that was long not asked for lets others have their turn.
    for (let from = 0; from < unknown.length; from += AT_ONCE) {
      const some = unknown.slice(from, from + AT_ONCE);
      const logs = await q.log.ofJobs(some.map((j) => j.id));
      for (const job of some) {
        const plan = planOf(job);
        const state = plan && jobState(plan, logs.get(job.id) ?? []);
        const film = plan && state ? filmOf(plan, state) : null;
        const at = {
          run: plan && state ? runOf(plan, state) : null,
          film,
          colours: q.colours.of(shop, shownOf(shop, job, film)),
        };
        told.set(job.id, at);
        standing.set(job.id, { key: keys.get(job.id)!, at });
        await othersTurn();
      }
    }
    return listed.map((job) => ({ ...job, ...told.get(job.id)! }));
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
