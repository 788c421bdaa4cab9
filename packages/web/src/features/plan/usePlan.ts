import { api, START_MIXING, START_PIECES, START_PLAN, type JobDetail, type SprayPlan } from '@steady-gleam/contracts';
import { boothPieces, planJob, STARTING_GUNS, type Gun, type JobPlan, type Product } from '@steady-gleam/core';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useRef, useState } from 'react';
import { call } from '../../shared/apiClient';
import { stacksOfPick } from '../../shared/FilmSection';
import { choiceOf } from '../../shared/jobModel';
import { useLibrary } from '../../shared/library';
import { useChangeJob, useJob } from '../../shared/useJob';
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
      void call(api.changeJob, { params: { id }, body: { version: now.version, plan: now.draft } })
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

/** Coats, order and waits of a job; the same on the plan's page, in the booth and on the sheet. */
export function planOf(q: {
  readonly job: JobDetail['job'];
  readonly layers: Parameters<typeof planJob>[0]['layers'];
  readonly library: Parameters<typeof planJob>[0]['library'];
  readonly products: readonly Product[];
  readonly guns: readonly Gun[];
  readonly plan: SprayPlan;
}): { readonly work: JobPlan; readonly gun: Gun } {
  const mixing = q.job.mixing ?? START_MIXING;
  const gun = q.guns.find((g) => g.id === mixing.gunId) ?? q.guns[0] ?? STARTING_GUNS[0]!;
  const work = planJob({
    layers: q.layers,
    library: q.library,
    products: q.products,
    named: mixing.products,
    gun,
    pieces: boothPieces(q.job.pieces ?? START_PIECES),
    temperatureC: mixing.temperatureC,
    humidity: mixing.humidity,
    settings: q.plan,
  });
  return { work, gun };
}

export function useWork(job: JobDetail['job'], plan: SprayPlan) {
  const { library } = useLibrary();
  const { data: products, ...productsAsked } = useProducts();
  const { data: guns, ...gunsAsked } = useGuns();
  const worked = useMemo(() => {
    const shelf = products?.map((p) => p.product) ?? [];
    const rack = guns?.map((g) => g.gun) ?? [];
    const stacks = job.stacks ?? stacksOfPick(job.systemId, choiceOf(job), library);
    const layers = stacks.flatMap((s) => s.layers);
    return {
      layers,
      guns: rack,
      products: shelf,
      ...planOf({ job, layers, library, products: shelf, guns: rack, plan }),
    };
  }, [job, plan, library, products, guns]);
  return {
    loading: productsAsked.isPending || gunsAsked.isPending,
    error: productsAsked.error ?? gunsAsked.error,
    ...worked,
  };
}
