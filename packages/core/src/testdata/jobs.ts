import { START_SETTINGS } from '../jobs/job';
import { STARTING_GUNS } from '../products/guns';
import type { JobFinish, JobObject, SprayArea, SpraySettings } from '../jobs/job';
import { planJob } from '../jobs/plan';
import { type JobPlan, type JobPlanInput } from '../jobs/planTypes';
import { layersOf } from '../finishes/layers';
import type { Recipe } from '../finishes/recipe';
import { findGround } from '../materials/grounds';
import { findMix } from '../materials/mixes';
import { STARTING_PRODUCTS } from '../products/products';
import { REFERENCE_LIBRARY } from '../materials/shop';

export const PLAIN_SETTINGS: SpraySettings = START_SETTINGS;

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
  mixId: string,
  groundId: string,
  coats: number,
  more: Partial<Recipe> = {},
): JobFinish => ({
  id,
  name: id,
  mixId,
  family: findMix(mixId).family,
  layers: layersOf(findGround(groundId), findMix(mixId), {
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
