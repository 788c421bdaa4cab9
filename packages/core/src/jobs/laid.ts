import { LAYER_FILM_UM } from '../finishes/layers';
import type { PlannedCoat } from '../spraying/coatPlan';
import { type JobLayer, type JobFinish, type SprayArea, isCounted, spreadCount, type Cell } from './job';
import type { JobPlanInput, JobPlan } from './planTypes';
import { type Reach, NONE, ALL } from './reach';

/**
 * Least wait before two-pack clear over a solvent or water base, minutes: less, and solvent is buried under it. Common practice
 * (no source); the product's sheet rules.
 */
export const BEFORE_CLEAR = 20;
/** Share of the longest flash for which a film takes overspray in; ours. Never under two minutes of flash. */
export const OPEN_SHARE = 0.7;
export const SHORTEST_FLASH = 2;
/** Where a layer stands in the run: what all share below, the finish, masked stripes, what lies over all. */
export type Phase = 0 | 1 | 2 | 3;
/** Under a stripe the tone below is locked: this layer stands in where the finish has none. */
const lockUnderStripes = (finishId: string): JobLayer => ({
  id: `${finishId}/lock-under-stripes`,
  finishId,
  kind: 'lock',
  materialId: null,
  coats: 1,
  style: 'wet',
  strength: 1,
  filmUm: LAYER_FILM_UM.lock,
  counted: false,
});

/** Layers of all finishes of a job, each under an id of its own: the first finish's under its own ids. */
export function jobLayers(finishes: readonly JobFinish[], areas: readonly SprayArea[]): JobLayer[] {
  const taken = new Set<string>();
  return finishes.flatMap((f) => {
    const layers = f.layers.map((l): JobLayer => {
      const id = taken.has(l.id) ? `${f.id}/${l.id}` : l.id;
      taken.add(id);
      return { ...l, id, finishId: f.id, counted: isCounted(f, l) };
    });
    const striped = areas.some((a) => a.finishId === f.id && areas.some((s) => s.on === a.id));
    const last = layers.findLastIndex((l) => l.kind === 'ground' || l.kind === 'effect' || l.kind === 'lock');
    if (!striped || last < 0 || layers[last]!.kind === 'lock') return layers;
    return [...layers.slice(0, last + 1), lockUnderStripes(f.id), ...layers.slice(last + 1)];
  });
}

export interface LaidLayer {
  readonly layer: JobLayer;
  readonly phase: Phase;
  readonly coats: number;
  readonly reach: Reach;
}

/** Layers as one area gets them: with the object's count, the painter's changes, and without what a stripe has from below. */
export function laidOn(
  area: SprayArea,
  q: Pick<JobPlanInput, 'finishes' | 'objects' | 'settings'>,
  layers: readonly JobLayer[],
): LaidLayer[] {
  const finish = q.finishes.find((f) => f.id === area.finishId)!;
  const own = layers.filter((l) => l.finishId === area.finishId);
  const top = own.findLastIndex((l) => l.kind !== 'clear');
  const counts = q.objects.find((o) => o.id === area.objectId)?.counts ?? [];
  const count = counts.find((c) => c.finishId === area.finishId)?.coats ?? null;
  const counted = own.filter((l) => l.counted);
  const asked = count === null ? null : spreadCount(finish, counted, count);
  return own.map((layer, i): LaidLayer => {
    const edit = q.settings.cells.find((c) => c.areaId === area.id && c.layerId === layer.id);
    const below = layer.kind === 'primer' || layer.kind === 'sealer';
    const over = i > top;
    const fromBelow = area.on !== null && (below || over || layer.id === lockUnderStripes(layer.finishId).id);
    return {
      layer,
      phase: over ? 3 : area.on !== null ? 2 : below ? 0 : 1,
      coats: edit?.coats ?? asked?.get(layer.id) ?? layer.coats,
      // A hidden area that is left uncleared gets no clear, if nobody said otherwise.
      reach: edit?.reach ?? (fromBelow || (layer.kind === 'clear' && area.clear === 'uncleared') ? NONE : ALL),
    };
  });
}

/** The reach of one coat of a layer: in a blend each goes further than the one below it. */
export function reachOf(reach: Reach, coat: PlannedCoat): Reach {
  if (reach.kind !== 'blend') return reach;
  const endCm = Math.max(1, reach.endCm - Math.max(0, coat.of - coat.number) * reach.stepCm);
  return { ...reach, endCm, fadeCm: Math.min(reach.fadeCm, endCm) };
}

/** The wait between two coats that lie on one another, minutes: what was typed is law, else the flash, longer under two-pack clear. */
export function waitBetween(plan: Pick<JobPlan, 'beforeClear'>, below: Cell, next: Cell): number {
  const clear = next.coat.chemistry === 'two-pack' && (next.coat.kind === 'clear' || next.coat.kind === 'effect');
  return !below.typed && below.coat.chemistry !== 'two-pack' && clear
    ? Math.max(below.flashMinutes, plan.beforeClear)
    : below.flashMinutes;
}
