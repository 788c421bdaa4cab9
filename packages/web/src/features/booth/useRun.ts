import { jobState, workOfCard, workOfJob } from '@steady-gleam/core/jobs';
import { libraryOf } from '@steady-gleam/core/materials';
import { useMemo } from 'react';
import { pickOf } from '../../shared/jobModel';
import type { BoothSnapshot } from '../../shared/log/device';
import type { JobLog } from '../../shared/log/useLog';
import { eventsOf } from '../../shared/useJobWork';

/** The plan of a job, or of its card, from what is kept on this device, and where it stands by every tap that is known. */
export function useRun(snapshot: BoothSnapshot, log: JobLog, ofCard: boolean) {
  const { detail, own, products, guns } = snapshot;
  const { job, card } = detail;
  const library = useMemo(() => libraryOf(own.map((m) => m.material)), [own]);
  const plan = useMemo(() => {
    const input = {
      job,
      card,
      library,
      products: products.map((p) => p.product),
      guns: guns.map((g) => g.gun),
      pick: pickOf(job),
    };
    return ((ofCard ? workOfCard(input) : null) ?? workOfJob(input)!).plan;
  }, [job, card, library, products, guns, ofCard]);
  const { events, refused, own: mine } = log;
  const state = useMemo(
    () => jobState(plan, ofCard ? events : eventsOf(detail, { events, refused }), (e) => mine.has(e.id)),
    [plan, detail, events, refused, mine, ofCard],
  );
  return { library, plan, state };
}
