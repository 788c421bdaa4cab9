import { START_PLAN, type JobDetail, type SprayPlan } from '@steady-gleam/contracts';
import { boothPieces, planJob, STARTING_GUNS, type Gun, type JobPlan, type Product } from '@steady-gleam/core';
import { useEffect, useState } from 'react';
import { useStacks } from '../../shared/FilmSection';
import { choiceOf } from '../../shared/jobModel';
import { useLibrary } from '../../shared/library';
import { useChangeJob, useJob } from '../../shared/useJob';
import { useRested } from '../../shared/useRested';
import { useGuns, useProducts } from '../../shared/useShop';
import { START_MIXING, START_PIECES } from '../mix/mixModel';

const NO_PRODUCTS: readonly Product[] = [];

/** A job's plan as it is being changed; kept on the server when the painter rests for a moment. */
export function usePlan() {
  const detail = useJob();
  const { job } = detail;
  const change = useChangeJob(job.id);
  const [plan, setPlan] = useState<SprayPlan>(job.plan ?? START_PLAN);
  const rested = useRested(plan, 500);
  const { mutate, isPending, isError } = change;
  const kept = JSON.stringify(job.plan ?? START_PLAN);
  useEffect(() => {
    if (JSON.stringify(rested) !== kept && !isPending && !isError) mutate({ version: job.version, plan: rested });
  }, [rested, kept, isPending, isError, mutate, job.version]);
  return {
    detail,
    plan,
    error: change.error,
    set: (more: Partial<SprayPlan>) => {
      // After a failure the next change tries again; a save on its way is left alone.
      if (isError) change.reset();
      setPlan((old) => ({ ...old, ...more }));
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
  const products = useProducts();
  const guns = useGuns();
  const stacks = useStacks(job, choiceOf(job));
  const layers = stacks.flatMap((s) => s.layers);
  const shelf = products.data?.map((p) => p.product) ?? NO_PRODUCTS;
  const rack = guns.data?.map((g) => g.gun) ?? [];
  return {
    loading: products.isPending || guns.isPending,
    error: products.error ?? guns.error,
    layers,
    guns: rack,
    products: shelf,
    ...planOf({ job, layers, library, products: shelf, guns: rack, plan }),
  };
}
