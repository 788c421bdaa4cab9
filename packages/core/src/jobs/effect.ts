import type { JobPlan } from './planTypes';
import { coatsOn } from './whatIsOn';
import { type JobState } from './stateTypes';

/** What of a plan is the effect of a mix on one object, and how much of it is on. */
export interface EffectOn {
  /** Layers of the mix that are counted. */
  readonly layerIds: readonly string[];
  /** Areas of the object that get it. */
  readonly areaIds: readonly string[];
  /** Coats on: the least and the most over its areas. */
  readonly least: number;
  readonly most: number;
}

/** The effect coats of a mix on one object, as the log has them. */
export function effectOn(plan: JobPlan, state: JobState, mixId: string, objectId: string): EffectOn {
  const layers = plan.layers.filter((l) => l.counted && l.materialId === mixId);
  const layerIds = layers.map((l) => l.id);
  const areaIds = plan.areas
    .filter((a) => a.objectId === objectId && layers.some((l) => l.finishId === a.finishId))
    .map((a) => a.id);
  const sums = areaIds.map((a) => layerIds.reduce((sum, l) => sum + coatsOn(state, l, [a]).most, 0));
  return {
    layerIds,
    areaIds,
    least: sums.length ? Math.min(...sums) : 0,
    most: Math.max(0, ...sums),
  };
}
