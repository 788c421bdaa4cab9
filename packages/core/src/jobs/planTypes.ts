import type { BoothAir } from '../booth/order';
import type { TimeBatch } from '../booth/timeline';
import type { Library } from '../materials/ownMaterials';
import type { Product } from '../products/products';
import type { Gun } from '../products/guns';
import type { SetUp } from '../spraying/setUp';
import type { PlannedCoat } from '../spraying/coatPlan';
import type { Check } from './checks';
import type { JobFinish, JobObject, SprayArea, SpraySettings, Cell, JobLayer } from './job';

export interface JobPlanInput {
  /** The job's own first. */
  readonly finishes: readonly JobFinish[];
  readonly objects: readonly JobObject[];
  readonly areas: readonly SprayArea[];
  readonly library: Library;
  readonly products: readonly Product[];
  readonly named: Readonly<Record<string, string>>;
  /** Reducers the painter chose, by the first layer of their cup. */
  readonly reducers?: Readonly<Record<string, string>>;
  readonly gun: Gun;
  readonly temperatureC: number;
  readonly humidity: number;
  readonly settings: SpraySettings;
  /** The set-up of the card of a mix, by the mix's id. */
  readonly cards?: Readonly<Record<string, SetUp>>;
}

/** A coat of the plan with the areas it goes on. */
export interface CoatRow {
  readonly coat: PlannedCoat;
  readonly cells: readonly Cell[];
  /** Least wait after it before what follows it, minutes; the longest over its areas. */
  readonly waitMinutes: number;
}

export interface JobPlan {
  readonly layers: readonly JobLayer[];
  readonly areas: readonly SprayArea[];
  readonly objects: readonly JobObject[];
  readonly finishes: readonly JobFinish[];
  readonly gun: Gun;
  /** Sorted as they are sprayed. */
  readonly cells: readonly Cell[];
  readonly checks: readonly Check[];
  readonly rows: readonly CoatRow[];
  readonly order: readonly SprayArea[];
  readonly advised: readonly SprayArea[];
  readonly air: BoothAir;
  readonly batches: readonly TimeBatch[];
  /** Least wait before two-pack clear over what is not, minutes. */
  readonly beforeClear: number;
}
