import { STARTING_GUNS } from '../application/guns';
import type { JobFinish, JobObject, SprayArea, SpraySettings } from '../jobs/job';
import { planJob, type JobPlan, type JobPlanInput } from '../jobs/plan';
import { layersOf, type StackRecipe } from '../finishes/layers';
import { findGround } from '../materials/grounds';
import { findSystem } from '../materials/systems';
import { STARTING_PRODUCTS } from '../mixing/products';
import { REFERENCE_LIBRARY } from '../materials/shop';

export const PLAIN_SETTINGS: SpraySettings = {
  school: 'wet',
  grip: false,
  tack: true,
  blown: false,
  bake: true,
  airTowards: 0,
  order: null,
  edits: {},
  cells: [],
};

export const object = (id: string, more: Partial<JobObject> = {}): JobObject => ({ id, name: id, counts: [], ...more });

export const area = (id: string, more: Partial<SprayArea> = {}): SprayArea => ({
  id,
  name: id,
  x: 0,
  y: 0,
  areaM2: 2,
  first: false,
  objectId: 'it',
  finishId: 'main',
  on: null,
  loose: false,
  lengthCm: 140,
  ...more,
});

/** A finish of the reference library: its mix over a ground. */
export const finish = (
  id: string,
  systemId: string,
  groundId: string,
  coats: number,
  more: Partial<StackRecipe> = {},
): JobFinish => ({
  id,
  name: id,
  systemId,
  layers: layersOf(findGround(groundId), findSystem(systemId), {
    groundId,
    coats,
    strength: 1,
    style: 'wet',
    controlCoats: 0,
    ...more,
  }),
});

/** A job of one tub, but for what is said. */
export const plainPlan = (more: Partial<JobPlanInput> = {}): JobPlan =>
  planJob({
    finishes: [finish('main', 'cinder-candy', 'silver-fine', 3)],
    objects: [object('it')],
    areas: [area('tub')],
    library: REFERENCE_LIBRARY,
    products: STARTING_PRODUCTS,
    named: {},
    gun: STARTING_GUNS[0]!,
    temperatureC: 20,
    humidity: 0.5,
    settings: PLAIN_SETTINGS,
    ...more,
  });
