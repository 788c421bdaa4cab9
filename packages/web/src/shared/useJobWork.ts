import type { JobDetail, SprayPlan } from '@steady-gleam/contracts';
import { type JobEvent, jobState, workOfJob } from '@steady-gleam/core/jobs';
import { createContext, use, useMemo } from 'react';
import { pickOf } from './jobModel';
import { useLibrary } from './library';
import type { JobLog } from './log/useLog';
import { useGuns, useProducts } from './useShop';

/** The log of the job whose pages are open; JobLayout keeps it. */
export const JobLogContext = createContext<JobLog | null>(null);

/** @throws Error outside of a job's pages */
export function useJobLog(): JobLog {
  const log = use(JobLogContext);
  if (!log) throw new Error('There is no job here.');
  return log;
}

/** Everything known of a job's log: from the server with the job, and on this device. */
export function eventsOf(
  detail: Pick<JobDetail, 'events'>,
  log: Pick<JobLog, 'events' | 'refused'>,
): readonly JobEvent[] {
  const refused = new Set(log.refused.map((r) => r.event.id));
  const own = new Set(log.events.map((e) => e.id));
  return [...log.events, ...detail.events.filter((e) => !own.has(e.id) && !refused.has(e.id))];
}

/**
 * The plan of the job that is open and where it stands: every page of it reads these.
 * @param settings a plan that is being changed; the job's own if left out
 */
export function useJobWork(detail: JobDetail, settings?: SprayPlan) {
  const { job, card } = detail;
  const { library } = useLibrary();
  const log = useJobLog();
  const { data: products, ...productsAsked } = useProducts();
  const { data: guns, ...gunsAsked } = useGuns();
  const worked = useMemo(() => {
    const shelf = { products: products?.map((p) => p.product) ?? [], guns: guns?.map((g) => g.gun) ?? [] };
    const work = workOfJob({
      job,
      card,
      library,
      ...shelf,
      ...(settings ? { settings } : {}),
      pick: pickOf(job),
    })!;
    return { ...shelf, library, ...work };
  }, [job, card, settings, library, products, guns]);
  const { events, refused, own } = log;
  const state = useMemo(
    () => jobState(worked.plan, eventsOf(detail, { events, refused }), (e) => own.has(e.id)),
    [worked, detail, events, refused, own],
  );
  return {
    loading: productsAsked.isPending || gunsAsked.isPending,
    error: productsAsked.error ?? gunsAsked.error,
    ...worked,
    state,
    log,
  };
}

export type JobWorked = ReturnType<typeof useJobWork>;
