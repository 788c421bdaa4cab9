import { type StackLayer } from '../finishes/layers';
import { STYLES } from '../finishes/styles';
import { cupOf, productFor } from '../products/productOf';
import { reducerFor, reducerPace } from '../products/products';
import { type PlannedCoat, coatPlan } from '../spraying/coatPlan';
import { flashMinutes } from '../spraying/flash';
import type { CellRef } from './events';
import type { Cell, JobLayer, SprayArea } from './job';
import { type Phase, type LaidLayer, reachOf } from './laid';
import type { JobPlanInput } from './planTypes';
import { reachM2 } from './reach';

/** A cell with what sorts it. */
interface Ranked extends Cell {
  readonly rank: readonly number[];
  readonly phase: Phase;
}

/** Coats of an area from what is laid on it; areas that get the same share one plan of them. */
export function createCoats(
  q: JobPlanInput,
  layers: readonly JobLayer[],
): (laid: readonly LaidLayer[]) => readonly PlannedCoat[] {
  // Layers out of one cup are one product: that of the first of them.
  const cup = (layer: StackLayer) => cupOf(layer, layers);
  const productOf = (layer: StackLayer) =>
    productFor(layers.find((l) => l.id === cup(layer)) ?? layer, q.library, q.products, q.named);
  const areaM2 = q.areas.filter((a) => a.on === null).reduce((sum, p) => sum + p.areaM2, 0);
  const paces = new Map<string, number>();
  const paceOf = (layer: StackLayer): number => {
    const id = cup(layer);
    const product = productOf(layer);
    const reducer = () => reducerFor(product!, q.temperatureC, areaM2, q.reducers?.[id]);
    const pace = paces.get(id) ?? (product ? reducerPace(product, reducer()) : 1);
    paces.set(id, pace);
    return pace;
  };
  const variants = new Map<string, readonly PlannedCoat[]>();
  return (laid) => {
    const wanted = laid.filter((l) => l.reach.kind !== 'none' && l.coats > 1e-6);
    const key = JSON.stringify(wanted.map((l) => [l.layer.id, l.coats]));
    const known = variants.get(key);
    if (known) return known;
    const coats = coatPlan({
      layers: wanted.map((l) => ({ ...l.layer, coats: l.coats })),
      library: q.library,
      productOf,
      cupOf: cup,
      paceOf,
      gun: q.gun,
      school: q.settings.school,
      grip: q.settings.grip,
      tack: q.settings.tack,
      edits: q.settings.edits,
      cardOf: (layer) => (layer.kind === 'effect' ? (q.cards?.[layer.materialId ?? ''] ?? null) : null),
    });
    variants.set(key, coats);
    return coats;
  };
}

/** Flash of a coat today, minutes: as it was typed, else by its sheet, the warmth, its film and the air. */
export function flashOf(q: JobPlanInput, c: PlannedCoat): number {
  return (
    c.typedFlash ??
    flashMinutes({
      minutesAt20: c.flashMinutes,
      temperature: q.temperatureC,
      film: c.flashAsIs ? 1 : Math.max(0.25, c.film),
      humidity: q.humidity,
      blown: q.settings.blown && c.chemistry !== 'two-pack',
      chemistry: c.chemistry,
    })
  );
}

/** The cells of one area. @param place of the area among all. @param finish place of its finish among the job's */
export function cellsOf(
  q: JobPlanInput,
  area: SprayArea,
  laid: readonly LaidLayer[],
  coats: readonly PlannedCoat[],
  place: number,
  finish: number,
): Ranked[] {
  const ids = laid.map((l) => l.layer.id);
  const top = laid.findIndex((l) => l.phase === 3);
  const lastClear = coats.findLastIndex((c) => c.kind === 'clear' && c.counted);
  return coats.map((planned, i): Ranked => {
    // Satin is what is seen of it: the last clear there.
    const coat = area.clear === 'satin' && i === lastClear ? { ...planned, name: `satin ${planned.name}` } : planned;
    const own = ids.indexOf(coat.layerId);
    const at = laid[own]!;
    const nth = at.phase === 3 ? own - top : own;
    // What lies below and over everything is laid in one go, whatever finish is between.
    const shared = at.phase === 0 || at.phase === 3;
    const reach = reachOf(at.reach, coat);
    return {
      coatId: coat.id,
      areaId: area.id,
      objectId: area.objectId,
      finishId: area.finishId,
      layerId: coat.layerId,
      coat,
      reach,
      areaM2: reachM2(reach, area),
      coats: coat.counted ? coat.film / STYLES[at.layer.style].film : 0,
      round: JSON.stringify([at.phase, shared ? coat.cupId : coat.layerId, nth, coat.number, coat.counted]),
      under: [],
      checks: [],
      flashMinutes: flashOf(q, coat),
      typed: coat.typedFlash !== null,
      recoatMinutes: coat.recoatMinutes === null ? null : coat.recoatMinutes * 2 ** ((20 - q.temperatureC) / 10),
      rank: [at.phase, shared ? 0 : finish, nth, coat.number, shared ? finish : 0, place],
      phase: at.phase,
    };
  });
}

export function byRank(a: Ranked, b: Ranked): number {
  for (let i = 0; i < a.rank.length; i++) if (a.rank[i] !== b.rank[i]) return a.rank[i]! - b.rank[i]!;
  return 0;
}

/** Cells with what must lie under each: the one before it on its area, the tone below a stripe, the stripes below a clear. */
export function withUnder(cells: readonly Ranked[], areas: readonly SprayArea[]): Ranked[] {
  const seqs = new Map(areas.map((a) => [a.id, cells.filter((c) => c.areaId === a.id)]));
  const of = (areaId: string): readonly Ranked[] => seqs.get(areaId) ?? [];
  const ref = ({ coatId, areaId }: CellRef): CellRef => ({ coatId, areaId });
  return cells.map((c) => {
    const here = of(c.areaId);
    const area = areas.find((a) => a.id === c.areaId)!;
    const before = here[here.indexOf(c) - 1];
    const under: CellRef[] = before ? [ref(before)] : [];
    if (!before && area.on !== null) {
      const base = of(area.on).findLast((o) => o.phase < 3);
      if (base) under.push(ref(base));
    }
    if (c.phase === 3 && before?.phase !== 3)
      for (const stripe of areas.filter((a) => a.on === area.id)) {
        const last = of(stripe.id).at(-1);
        if (last) under.push(ref(last));
      }
    return { ...c, under };
  });
}
