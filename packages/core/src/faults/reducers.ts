import type { JobPlan } from '../jobs/planTypes';
import type { Library } from '../materials/ownMaterials';
import { cupOf, productFor } from '../products/productOf';
import { reducerFor, type Product } from '../products/products';

/** Warmer than its band by this much a reducer is too fast, C; ours. */
const TOO_WARM = 2;

/** Reducers in the cups of a plan that are made for less warmth than there is, by name. */
export function tooFastReducers(q: {
  readonly plan: Pick<JobPlan, 'layers' | 'areas'>;
  readonly library: Library;
  readonly products: readonly Product[];
  /** Products by layer. */
  readonly named: Readonly<Record<string, string>>;
  /** Reducers the painter chose, by the first layer of their cup. */
  readonly reducers: Readonly<Record<string, string>>;
  readonly temperatureC: number;
}): string[] {
  const { layers, areas } = q.plan;
  const areaM2 = areas.reduce((sum, a) => sum + (a.on === null ? a.areaM2 : 0), 0);
  const names = layers
    .filter((l) => cupOf(l, layers) === l.id)
    .flatMap((l) => {
      const product = productFor(l, q.library, q.products, q.named);
      const reducer = product && reducerFor(product, q.temperatureC, areaM2, q.reducers[l.id]);
      return reducer && q.temperatureC > reducer.toC + TOO_WARM ? [reducer.name] : [];
    });
  return [...new Set(names)];
}
