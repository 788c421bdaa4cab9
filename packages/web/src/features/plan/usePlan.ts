import { type SprayPlan, START_PLAN } from '@steady-gleam/contracts';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { changeJob, shownOf, useChangeJob, useJob, type Changed } from '../../shared/useJob';
import { useRested } from '../../shared/useRested';

/**
 * A job's plan as it is being changed. What the painter changed is a draft until the server has it: kept after a moment's rest,
 * and at once when the page is left. Without a draft the server's plan is shown, also when it was changed elsewhere.
 */
export function usePlan() {
  const detail = useJob();
  const { job } = detail;
  const client = useQueryClient();
  const change = useChangeJob(job.id);
  const [draft, setDraft] = useState<Changed<SprayPlan> | null>(null);
  const rested = useRested(draft, 500);
  const { mutate, isPending, isError } = change;
  const kept = JSON.stringify(job.plan);
  useEffect(() => {
    if (rested?.keptAs !== null || rested !== draft || isPending || isError) return;
    const keptBy = (version: number) => setDraft((now) => (now === rested ? { ...rested, keptAs: version } : now));
    // Changed back to what is there: nothing is left to keep, and what is changed elsewhere from now on is shown.
    if (JSON.stringify(rested.value) === kept) keptBy(job.version);
    else mutate({ version: job.version, plan: rested.value }, { onSuccess: ({ version }) => keptBy(version) });
  }, [rested, draft, kept, isPending, isError, mutate, job.version]);
  const latest = useRef({ draft, version: job.version, busy: isPending });
  useEffect(() => {
    latest.current = { draft, version: job.version, busy: isPending };
  });
  const { id } = job;
  useEffect(
    () => () => {
      const now = latest.current;
      if (now.draft?.keptAs !== null || now.busy) return;
      void changeJob(id, { version: now.version, plan: now.draft.value })
        // The server is away or the job was changed elsewhere: the plan it has stands, and is shown when the page is next opened.
        .catch(() => undefined)
        .then(() => client.invalidateQueries({ queryKey: ['jobs'] }));
    },
    [id, client],
  );
  const own = job.plan ?? START_PLAN;
  return {
    detail,
    plan: shownOf(job, draft, own),
    error: change.error,
    set: (more: Partial<SprayPlan>) => {
      // After a failure the next change tries again; a save on its way is left alone.
      if (isError) change.reset();
      setDraft((old) => ({ value: { ...shownOf(job, old, own), ...more }, keptAs: null }));
    },
  };
}
