import type { FaultStep, FaultWay } from '../faults/ways';
import { cellMl, LEFT_IN_GUN_ML } from '../jobs/amounts';
import { ALL } from '../jobs/reach';
import type { JobState } from '../jobs/stateTypes';
import { mendCell } from '../jobs/mend';
import type { Mend, MendReach, MendStep } from '../jobs/mendSteps';
import { effectOn } from '../jobs/effect';
import { waitBetween } from '../jobs/laid';
import { type JobPlan } from '../jobs/planTypes';
import { TAKES } from '../jobs/checks';
import type { Cell, JobLayer } from '../jobs/job';
import type { CellRef } from '../jobs/events';
import { STYLES, type StyleId } from '../finishes/styles';
import { sprayMinutes } from '../spraying/coatPlan';

/** When an object is looked at. */
export type Moment = 'under way' | 'last chance' | 'finished';

/**
 * Which of the three moments it is for an object, or for some of its areas; null while nothing of its effect is on. What lies on top
 * tells it: a place that was sanded through the clear and has effect on it again is not finished.
 */
export function momentOf(
  plan: JobPlan,
  state: JobState,
  mixId: string,
  objectId: string,
  areaIds?: readonly string[],
): Moment | null {
  const effect = effectOn(plan, state, mixId, objectId);
  if (effect.most <= 0) return null;
  const on = areaIds ?? effect.areaIds;
  const own = state.cells.filter((s) => on.includes(s.cell.areaId));
  const tops = on.map((id) => own.findLast((s) => s.cell.areaId === id && s.sprayedAt !== null));
  if (tops.some((s) => s?.cell.coat.kind === 'clear')) return 'finished';
  const isLeft = own.some(
    (s) => effect.layerIds.includes(s.cell.layerId) && s.sprayedAt === null && s.leftOut === null,
  );
  return isLeft ? 'under way' : 'last chance';
}

/** The layers of an area's finish that a mend lays coats of, and what was laid last. */
export interface MendLayers {
  readonly ground: string | null;
  readonly effect: string | null;
  readonly clear: string | null;
  readonly same: string | null;
  /** Coats of each as they are planned on the area. */
  readonly planned: (layerId: string) => number;
}

/** Layers a mend of an area can lay. @param areaId where the fault is */
export function mendLayers(plan: JobPlan, state: JobState, areaId: string): MendLayers {
  const finishId = plan.areas.find((a) => a.id === areaId)?.finishId;
  const own = plan.layers.filter((l) => l.finishId === finishId);
  const laid = plan.cells.filter((c) => c.areaId === areaId);
  const has = (id: string) => plan.cells.some((c) => c.layerId === id && c.coat.counted);
  const layer = (kind: string) => own.find((l) => l.kind === kind && has(l.id))?.id ?? null;
  const last = state.cells
    .filter((s) => s.cell.areaId === areaId && s.sprayedAt !== null)
    .sort((a, b) => a.sprayedAt! - b.sprayedAt!)
    .at(-1);
  return {
    ground: own.findLast((l) => l.kind === 'ground' && has(l.id))?.id ?? null,
    effect: own.find((l) => l.counted && has(l.id))?.id ?? layer('effect'),
    clear: own.findLast((l) => l.kind === 'clear' && has(l.id))?.id ?? null,
    same: last && has(last.cell.layerId) ? last.cell.layerId : null,
    planned: (layerId) => {
      const count = laid.filter((c) => c.layerId === layerId && c.coat.counted).reduce((s, c) => s + c.coats, 0);
      return count || (plan.layers.find((l) => l.id === layerId)?.coats ?? 1);
    },
  };
}

/** A coat of a style, in coats of a layer. */
export const coatOf = (layer: Pick<JobLayer, 'style'>, style: StyleId): number =>
  STYLES[style].film / STYLES[layer.style].film;

/** Coats of a step, each with the share of its style that makes up the sum. */
export function coatSteps(
  plan: JobPlan,
  q: {
    readonly layerId: string;
    readonly style: Extract<MendStep, { is: 'coat' }>['style'];
    /** In coats of the layer. */
    readonly coats: number;
    readonly reach: MendReach;
    readonly anew?: boolean;
  },
): MendStep[] {
  const layer = plan.layers.find((l) => l.id === q.layerId);
  if (!layer || q.coats <= 1e-6) return [];
  const of = 1 / coatOf(layer, q.style);
  // In coats of the style that lays it; what is left after whole ones goes on as a thinner last one.
  const inStyle = q.coats * of;
  const n = Math.max(1, q.style === 'wet' ? Math.ceil(inStyle - 1e-6) : Math.round(inStyle));
  const shares =
    q.style === 'wet'
      ? Array.from({ length: n }, (_, i) => Math.min(1, inStyle - i))
      : Array.from({ length: n }, () => inStyle / n);
  return shares.map((share, i): MendStep => {
    // A tenth can't be laid evenly of the mix as it is.
    const letDown = layer.kind === 'effect' && share / of < 0.2;
    return {
      is: 'coat',
      layerId: q.layerId,
      style: q.style,
      share: Number(share.toFixed(3)),
      reach: q.reach,
      letDown,
      anew: i === 0 && q.anew === true,
    };
  });
}

/** What is done about a fault, as steps of a mend; steps of layers the job has not are left out. @param spot where only a place is mended */
export function stepsOfFault(
  plan: JobPlan,
  layers: MendLayers,
  way: FaultWay,
  spot: { readonly ground: MendReach; readonly effect: MendReach },
): MendStep[] {
  return way.steps.flatMap((s: FaultStep): MendStep[] => {
    if (s.is === 'work') return [{ is: 'work', kind: s.kind, text: s.text, minutes: s.minutes }];
    const layerId = layers[s.of];
    const layer = plan.layers.find((l) => l.id === layerId);
    if (!layerId || !layer) return [];
    const planned = s.coats === 'planned';
    const reach = s.on === 'area' ? ALL : s.of === 'ground' ? spot.ground : spot.effect;
    // A control coat is one of its style, whatever a coat of the layer is.
    const coats = planned ? layers.planned(layerId) : s.coats * coatOf(layer, s.style);
    const style = s.style === 'wet' ? layer.style : s.style;
    return coatSteps(plan, { layerId, style, coats, reach, anew: s.anew === true });
  });
}

/** What steps cost on some areas: coats, ml ready to spray, minutes with their waits. */
export interface MendCost {
  readonly coats: number;
  readonly ml: number;
  readonly minutes: number;
}

export function costOf(plan: JobPlan, areaIds: readonly string[], spot: string, steps: readonly MendStep[]): MendCost {
  let [ml, minutes, coats] = [0, 0, 0];
  let before: readonly Cell[] = [];
  steps.forEach((step, i) => {
    if (step.is === 'work') {
      minutes += step.minutes + TAKES[step.kind];
      before = [];
      return;
    }
    const cells = areaIds.flatMap((areaId): Cell[] => {
      const cell = mendCell(plan, { id: String(i), areaId, step, spot, round: '', number: 1, of: 1 });
      return cell ? [cell] : [];
    });
    if (!cells.length) return;
    coats++;
    for (const c of cells) {
      ml += cellMl(c, plan.gun.transfer);
      minutes += sprayMinutes(c.areaM2, plan.gun, c.coat);
    }
    const waits = before.flatMap((b) => cells.filter((c) => c.areaId === b.areaId).map((c) => waitBetween(plan, b, c)));
    minutes += Math.max(0, ...waits);
    before = cells;
  });
  minutes += Math.max(0, ...before.map((b) => b.flashMinutes));
  return { coats, ml: coats ? Math.ceil((ml + LEFT_IN_GUN_ML) / 5) * 5 : 0, minutes };
}

/** What an event of a mend is about: on each area what was laid there last, so that it goes right on that. */
export function mendTold(
  state: JobState,
  areaIds: readonly string[],
  mend: Mend,
  text: string,
): { readonly kind: 'mend'; readonly cells: readonly CellRef[]; readonly mend: Mend; readonly text: string } {
  const cells = areaIds.map((areaId): CellRef => {
    const last = state.cells.findLast((s) => s.cell.areaId === areaId && s.sprayedAt !== null);
    return { coatId: last?.cell.coatId ?? '', areaId };
  });
  return { kind: 'mend', cells, mend, text };
}
