import { planTimeline } from '../booth';
import { startingLayers } from '../finishes';
import { type JobFinish, type JobPlan, timeTasks, jobState, waitBetween } from '../jobs';
import { findMix } from '../materials';
import { finish } from './jobs';

/** Ids one after the other. */
const nextId = () => {
  let n = 0;
  return () => `l${n++}`;
};
export const candy = finish('main', 'cinder-candy', 'silver-fine', 2, { controlCoats: 1 });
export const bare: JobFinish = {
  id: 'main',
  name: 'bare',
  mixId: 'cinder-candy',
  layers: startingLayers('bare', findMix('cinder-candy'), nextId()),
};
export const lineOf = (plan: JobPlan) =>
  planTimeline({
    tasks: timeTasks(plan, jobState(plan, [])),
    batches: plan.batches,
    now: 0,
    done: new Map(),
    mixed: new Map(),
  });

export const waitsOf = (plan: JobPlan) =>
  plan.cells.slice(0, -1).map((c, k) => waitBetween(plan, c, plan.cells[k + 1]!));
