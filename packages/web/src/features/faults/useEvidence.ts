import { START_MIXING, type JobDetail } from '@steady-gleam/contracts';
import { evidenceOf, type Evidence } from '@steady-gleam/core/faults';
import { USUAL_LIMIT_UM } from '@steady-gleam/core/finishes';
import { planAgainstCard, type JobPlan, type JobState } from '@steady-gleam/core/jobs';
import { adviseAdditive, productFor } from '@steady-gleam/core/products';
import { setUpOf } from '@steady-gleam/core/spraying';
import { useMemo } from 'react';
import { useLibrary } from '../../shared/library';
import { useProducts } from '../../shared/useShop';

/** Warmer than its band by this much a reducer is too fast, C; ours. */
const TOO_WARM = 2;

/** What the record of a job says of causes of faults. */
export function useEvidence(detail: JobDetail, plan: JobPlan, state: JobState): readonly Evidence[] {
  const { library } = useLibrary();
  const products = useProducts();
  const { job, card, events } = detail;
  return useMemo(() => {
    const mixing = job.mixing ?? START_MIXING;
    const shelf = (products.data ?? []).map((p) => p.product);
    const tooFast = plan.layers.flatMap((l) => {
      const product = productFor(l, library, shelf, mixing.products);
      const named = mixing.reducers?.[l.id];
      const chosen = product?.additives.find((a) => a.role === 'reducer' && a.name === named);
      const used =
        chosen ?? (product && adviseAdditive(product.additives, 'reducer', mixing.temperatureC, 0)?.additive);
      return used && mixing.temperatureC > used.toC + TOO_WARM ? [used.name] : [];
    });
    return evidenceOf({
      plan,
      state,
      events,
      ...{ temperatureC: mixing.temperatureC, humidity: mixing.humidity, blown: job.plan?.blown ?? false },
      limitUm: job.filmLimitUm ?? USUAL_LIMIT_UM,
      differences: card ? planAgainstCard(setUpOf(card), plan, job.mixId) : [],
      tooFast: [...new Set(tooFast)],
      hidesIn: (id) => {
        const layer = plan.layers.find((l) => l.id === id && l.kind === 'ground');
        return layer ? (library.grounds.find((g) => g.id === layer.materialId)?.hidesIn ?? null) : null;
      },
    });
  }, [job, card, events, plan, state, library, products.data]);
}
