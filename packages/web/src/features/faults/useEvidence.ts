import { START_MIXING, type JobDetail } from '@steady-gleam/contracts';
import { evidenceOf, tooFastReducers, type Evidence } from '@steady-gleam/core/faults';
import { USUAL_LIMIT_UM } from '@steady-gleam/core/finishes';
import { planAgainstCard, type JobPlan, type JobState } from '@steady-gleam/core/jobs';
import { setUpOf } from '@steady-gleam/core/spraying';
import { useMemo } from 'react';
import { useLibrary } from '../../shared/library';
import { useProducts } from '../../shared/useShop';

/** What the record of a job says of causes of faults. */
export function useEvidence(detail: JobDetail, plan: JobPlan, state: JobState): readonly Evidence[] {
  const { library } = useLibrary();
  const products = useProducts();
  const { job, card, events } = detail;
  return useMemo(() => {
    const mixing = job.mixing ?? START_MIXING;
    const shelf = (products.data ?? []).map((p) => p.product);
    return evidenceOf({
      plan,
      state,
      events,
      ...{ temperatureC: mixing.temperatureC, humidity: mixing.humidity, blown: job.plan?.blown ?? false },
      limitUm: job.filmLimitUm ?? USUAL_LIMIT_UM,
      differences: card ? planAgainstCard(setUpOf(card), plan, job.mixId) : [],
      tooFast: tooFastReducers({
        ...{ plan, library, products: shelf, temperatureC: mixing.temperatureC },
        ...{ named: mixing.products, reducers: mixing.reducers ?? {} },
      }),
      hidesIn: (id) => {
        const layer = plan.layers.find((l) => l.id === id && l.kind === 'ground');
        return layer ? (library.grounds.find((g) => g.id === layer.materialId)?.hidesIn ?? null) : null;
      },
    });
  }, [job, card, events, plan, state, library, products.data]);
}
