import { sprayApi, START_PLAN, workOfJob, type JobDetail, type SprayPlan } from '@steady-gleam/contracts';
import type { BoothEvent } from '@steady-gleam/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useRef, useState } from 'react';
import { call } from '../../shared/apiClient';
import { choiceOf } from '../../shared/jobModel';
import { useLibrary } from '../../shared/library';
import { changeJob, useChangeJob, useJob } from '../../shared/useJob';
import { useRested } from '../../shared/useRested';
import { useGuns, useProducts } from '../../shared/useShop';

/**
 * A job's plan as it is being changed. What the painter changed is a draft until the server has it: kept after a moment's rest,
 * and at once when the page is left. Without a draft the server's plan is shown, also when it was changed elsewhere.
 */
export function usePlan() {
  const detail = useJob();
  const { job } = detail;
  const client = useQueryClient();
  const change = useChangeJob(job.id);
  const [draft, setDraft] = useState<SprayPlan | null>(null);
  const rested = useRested(draft, 500);
  const { mutate, isPending, isError } = change;
  const kept = JSON.stringify(job.plan);
  useEffect(() => {
    if (!rested || rested !== draft || isPending || isError || JSON.stringify(rested) === kept) return;
    mutate(
      { version: job.version, plan: rested },
      { onSuccess: () => setDraft((now) => (now === rested ? null : now)) },
    );
  }, [rested, draft, kept, isPending, isError, mutate, job.version]);
  const latest = useRef({ draft, version: job.version, busy: isPending });
  useEffect(() => {
    latest.current = { draft, version: job.version, busy: isPending };
  });
  const { id } = job;
  useEffect(
    () => () => {
      const now = latest.current;
      if (!now.draft || now.busy) return;
      void changeJob(id, { version: now.version, plan: now.draft })
        // The server is away or the job was changed elsewhere: the plan it has stands, and is shown when the page is next opened.
        .catch(() => undefined)
        .then(() => client.invalidateQueries({ queryKey: ['jobs'] }));
    },
    [id, client],
  );
  const plan = draft ?? job.plan ?? START_PLAN;
  return {
    detail,
    plan,
    error: change.error,
    set: (more: Partial<SprayPlan>) => {
      // After a failure the next change tries again; a save on its way is left alone.
      if (isError) change.reset();
      setDraft((old) => ({ ...(old ?? job.plan ?? START_PLAN), ...more }));
    },
  };
}

/** What follows from a job and its plan as it is being changed, with the shop's shelf. */
export function useWork(job: JobDetail['job'], settings: SprayPlan) {
  const { library } = useLibrary();
  const { data: products, ...productsAsked } = useProducts();
  const { data: guns, ...gunsAsked } = useGuns();
  const worked = useMemo(() => {
    const shelf = { products: products?.map((p) => p.product) ?? [], guns: guns?.map((g) => g.gun) ?? [] };
    return { ...shelf, library, ...workOfJob({ job, library, ...shelf, settings, choice: choiceOf(job) })! };
  }, [job, settings, library, products, guns]);
  return {
    loading: productsAsked.isPending || gunsAsked.isPending,
    error: productsAsked.error ?? gunsAsked.error,
    ...worked,
  };
}

/** What the server has of a job's run in the booth. */
export function useBoothLog(jobId: string) {
  return useQuery({
    queryKey: ['booth', jobId],
    queryFn: () => call(sprayApi.readBooth, { params: { id: jobId } }) as unknown as Promise<BoothEvent[]>,
    // The plan follows the taps as they come.
    refetchInterval: 10_000,
  });
}
