import { settingsForFilm } from '../spraying/gunFilm';
import type { Gun } from '../products/guns';
import { LAYER_FILM_UM, type StackLayer } from '../finishes/layers';
import type { Library } from '../materials/ownMaterials';
import { STYLES, type StyleId } from '../finishes/styles';
import { cupOf, productFor } from '../products/productOf';
import { reducerFor, reducerPace, type Product } from '../products/products';
import { wayOf } from '../products/ways';
import { potLifeAt } from '../mixing/voc';
import { bestOrder, type BoothAir } from '../booth/order';
import type { SetUp } from '../spraying/setUp';
import { coatPlan, sprayMinutes, type PlannedCoat } from '../spraying/coatPlan';
import { flashMinutes } from '../spraying/flash';
import type { TimeBatch } from '../booth/timeline';
import { checksOf, type Check } from './checks';
import { LET_DOWN, type CellRef } from './events';
import {
  isCounted,
  spreadCount,
  type Cell,
  type JobFinish,
  type JobLayer,
  type JobObject,
  type SprayArea,
  type SpraySettings,
} from './job';
import { ALL, NONE, reachM2, type Reach } from './reach';

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

/**
 * Least wait before two-pack clear over a solvent or water base, minutes: less, and solvent is buried under it. Common practice
 * (no source); the product's sheet rules.
 */
export const BEFORE_CLEAR = 20;
/** Minutes to mix a cup; ours. */
const MIX_MINUTES = 6;
/** Share of the longest flash for which a film takes overspray in; ours. Never under two minutes of flash. */
const OPEN_SHARE = 0.7;
const SHORTEST_FLASH = 2;

/** Where a layer stands in the run: what all share below, the finish, masked stripes, what lies over all. */
type Phase = 0 | 1 | 2 | 3;

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

interface LaidLayer {
  readonly layer: JobLayer;
  readonly phase: Phase;
  readonly coats: number;
  readonly reach: Reach;
}

/** Layers as one area gets them: with the object's count, the painter's changes, and without what a stripe has from below. */
function laidOn(
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
function reachOf(reach: Reach, coat: PlannedCoat): Reach {
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

/** A cell with what sorts it. */
interface Ranked extends Cell {
  readonly rank: readonly number[];
  readonly phase: Phase;
}

/** Coats of an area from what is laid on it; areas that get the same share one plan of them. */
function createCoats(
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
function flashOf(q: JobPlanInput, c: PlannedCoat): number {
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
function cellsOf(
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

function byRank(a: Ranked, b: Ranked): number {
  for (let i = 0; i < a.rank.length; i++) if (a.rank[i] !== b.rank[i]) return a.rank[i]! - b.rank[i]!;
  return 0;
}

/** Cells with what must lie under each: the one before it on its area, the tone below a stripe, the stripes below a clear. */
function withUnder(cells: readonly Ranked[], areas: readonly SprayArea[]): Ranked[] {
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

/** The whole spraying of a job: a cell for every coat on every area, in order, with what waits for what. */
export function planJob(q: JobPlanInput): JobPlan {
  const layers = jobLayers(q.finishes, q.areas);
  const coatsOf = createCoats(q, layers);
  const laid = new Map(q.areas.map((a) => [a.id, laidOn(a, q, layers)]));
  const flashes = [...laid.values()].flatMap((l) => coatsOf(l).map((c) => flashOf(q, c)));
  const air: BoothAir = {
    towards: q.settings.airTowards,
    openMinutes: Math.max(SHORTEST_FLASH, ...flashes) * OPEN_SHARE,
    minutesPerM2: sprayMinutes(1, q.gun, { speedCmS: q.gun.speedCmS, overlap: 0.75 }),
  };
  const advised = bestOrder(q.areas, air);
  const own = q.settings.order;
  const placeIn = (list: readonly string[], id: string) => (list.includes(id) ? list.indexOf(id) : list.length);
  const order = own ? [...advised].sort((a, b) => placeIn(own, a.id) - placeIn(own, b.id)) : advised;
  const ranked = order.flatMap((area, place) => {
    const finish = q.finishes.findIndex((f) => f.id === area.finishId);
    return cellsOf(q, area, laid.get(area.id)!, coatsOf(laid.get(area.id)!), place, finish);
  });
  const { cells, checks } = checksOf(
    { ...q, areas: order, way: wayOf(q.gun) },
    withUnder(ranked.sort(byRank), order),
    layers,
  );
  const beforeClear = q.settings.beforeClearMinutes ?? BEFORE_CLEAR;
  const batches = [...new Map(cells.map((c) => [c.coat.cupId, c.coat])).values()].map((c) => ({
    id: c.cupId,
    name: c.name,
    mixMinutes: MIX_MINUTES,
    potMinutes: c.potLifeMinutes === null ? null : potLifeAt(c.potLifeMinutes, q.temperatureC),
  }));
  return {
    layers,
    areas: q.areas,
    objects: q.objects,
    finishes: q.finishes,
    gun: q.gun,
    cells,
    checks,
    rows: rowsOf(cells, beforeClear),
    order,
    advised,
    air,
    batches,
    beforeClear,
  };
}

/** Coats of the plan in order, each once however many areas it goes on; of areas that get more of a layer the larger number. */
function rowsOf(cells: readonly Cell[], beforeClear: number): CoatRow[] {
  const rows = new Map<string, Cell[]>();
  for (const c of cells) {
    const key = JSON.stringify([c.coatId, c.coat.style]);
    rows.set(key, [...(rows.get(key) ?? []), c]);
  }
  return [...rows.values()].map((own) => {
    const most = own.reduce((a, b) => (b.coat.of > a.coat.of ? b : a));
    const waits = own.map((c) => {
      const next = cells.find((n) => n.under.some((u) => u.coatId === c.coatId && u.areaId === c.areaId));
      return next ? waitBetween({ beforeClear }, c, next) : c.flashMinutes;
    });
    return { coat: most.coat, cells: own, waitMinutes: Math.max(...waits) };
  });
}

/**
 * A coat more of a layer than is planned: as that layer's last coat on the area, with settings that lay its share of film.
 * @param coats against a full coat of the layer: 1, a half, a quarter; an eighth is a quarter coat of the mix let down 1:1
 */
export function extraCell(
  plan: JobPlan,
  q: {
    readonly id: string;
    readonly layerId: string;
    readonly areaId: string;
    readonly coats: number;
    readonly letDown?: boolean;
  },
): Cell | null {
  const last = plan.cells.findLast((c) => c.areaId === q.areaId && c.layerId === q.layerId && c.coat.counted);
  const layer = plan.layers.find((l) => l.id === q.layerId);
  if (!last || !layer) return null;
  const film = q.coats * STYLES[layer.style].film;
  const laid = q.letDown ? 2 * q.coats : q.coats;
  const style: StyleId = laid >= 1 - 1e-9 ? layer.style : laid >= 0.5 - 1e-9 ? 'half' : 'light';
  const volumeSolids = last.coat.volumeSolids / (q.letDown ? 2 : 1);
  const filmUm = film * layer.filmUm;
  const full = last.coat;
  const coat: PlannedCoat = {
    ...full,
    ...settingsForFilm(plan.gun, full, volumeSolids, filmUm),
    id: q.id,
    number: full.number + 1,
    name: q.letDown ? `${full.name}, ${LET_DOWN}` : full.name,
    volumeSolids,
    style,
    film,
    filmUm,
  };
  return {
    ...last,
    coatId: q.id,
    coat,
    coats: q.coats,
    round: JSON.stringify(['extra', q.id]),
    under: [{ coatId: last.coatId, areaId: last.areaId }],
    checks: [],
  };
}
