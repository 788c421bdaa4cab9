import { fanAt } from '../application/gunFilm';
import type { Gun } from '../application/guns';
import type { StackLayer } from '../layers';
import { FAMILIES } from '../materials/families';
import type { Library } from '../materials/ownMaterials';
import { reducerFor, reducerPace, type Product, type ProductKind } from '../mixing/products';
import { potLifeAt } from '../mixing/voc';
import { pieceArea, type ShapedPiece } from '../mixing/batch';
import { bestOrder, type BoothAir, type BoothPiece } from './boothOrder';
import { taskKey, type BoothTask } from './boothRun';
import { coatPlan, type CoatEdit, type PlannedCoat, type School } from './coatPlan';
import { dewPoint, flashMinutes } from './flash';
import type { TimeBatch, TimeTask } from './timeline';

const KIND_OF: Record<Exclude<StackLayer['kind'], 'effect'>, ProductKind> = {
  primer: 'primer',
  sealer: 'sealer',
  ground: 'ground',
  lock: 'intercoat',
  clear: 'clear',
};

/** Kind of product a layer is sprayed with. */
export function productKindOf(layer: Pick<StackLayer, 'kind' | 'materialId'>, library: Library): ProductKind {
  if (layer.kind !== 'effect') return KIND_OF[layer.kind];
  const system = library.systems.find((s) => s.id === layer.materialId);
  const pigment = library.pigments.find((p) => p.id === system?.flake?.pigmentId);
  if (pigment?.kind === 'metal-flake') return 'flake carrier';
  return system ? FAMILIES[system.family].productKind : 'mid coat';
}

/** The cup a layer comes out of, as the id of its first layer: layers of the same stuff at the same strength share one. */
export function cupOf(
  layer: Pick<StackLayer, 'id' | 'kind' | 'materialId' | 'strength'>,
  layers: readonly StackLayer[],
): string {
  const same = (l: StackLayer) =>
    l.kind === layer.kind &&
    l.materialId === layer.materialId &&
    (l.kind !== 'effect' || l.strength === layer.strength);
  return layers.find(same)?.id ?? layer.id;
}

/** The job's product for a layer: the one it names, else the shop's first of that kind. */
export function productFor(
  layer: Pick<StackLayer, 'id' | 'kind' | 'materialId'>,
  library: Library,
  products: readonly Product[],
  named: Readonly<Record<string, string>>,
): Product | null {
  const own = products.find((p) => p.id === named[layer.id]);
  const kind = productKindOf(layer, library);
  return own ?? products.find((p) => p.kind === kind) ?? null;
}

/** What the painter set for the spraying of a job. */
export interface SpraySettings {
  readonly school: School;
  readonly grip: boolean;
  readonly tack: boolean;
  /** Air moved over drying films; never over two-pack. */
  readonly blown: boolean;
  /** A bake after the last coat. */
  readonly bake: boolean;
  /** Where the air goes, degrees from the x axis towards the y axis. */
  readonly airTowards: number;
  /** The painter's own order of pieces; null for the advised one. */
  readonly order: readonly string[] | null;
  readonly edits: Readonly<Record<string, CoatEdit>>;
  /** Least wait before a two-pack clear over solvent or water base, minutes; null for the usual one. */
  readonly beforeClearMinutes?: number | null;
}

export interface JobPlanInput {
  readonly layers: readonly StackLayer[];
  readonly library: Library;
  readonly products: readonly Product[];
  readonly named: Readonly<Record<string, string>>;
  /** Reducers the painter chose, by the first layer of their cup. */
  readonly reducers?: Readonly<Record<string, string>>;
  readonly gun: Gun;
  readonly pieces: readonly BoothPiece[];
  readonly temperatureC: number;
  readonly humidity: number;
  readonly settings: SpraySettings;
}

export interface JobPlan {
  readonly coats: readonly PlannedCoat[];
  /** Flash of each coat today, minutes; in the order of the coats. */
  readonly flashes: readonly number[];
  /** Least wait after each coat before the next may go on the same piece, minutes: its flash, longer before clear. */
  readonly waits: readonly number[];
  readonly order: readonly BoothPiece[];
  readonly advised: readonly BoothPiece[];
  readonly air: BoothAir;
  readonly runs: readonly BoothTask[];
  readonly tasks: readonly TimeTask[];
  readonly batches: readonly TimeBatch[];
}

/**
 * Least wait before two-pack clear over a solvent or water base, minutes: less, and solvent is buried under it. Common practice
 * (no source); the product's sheet rules.
 */
export const BEFORE_CLEAR = 20;
/** Minutes: standing before a bake, the bake itself. Common practice (no source). */
const STANDING = 15;
const BAKE_MINUTES = 30;
/** Id of the task that is the bake. */
export const BAKE = 'bake';
/** Minutes to mix a cup; ours. */
const MIX_MINUTES = 6;
/** Share of the longest flash for which a film takes overspray in; ours. Never under two minutes of flash. */
const OPEN_SHARE = 0.7;
const SHORTEST_FLASH = 2;
/** Turning, walking and looking, as a share of the strokes' own time; ours. */
const TURNING = 1.6;

/** Surface temperatures nearer to the dew point than this are refused: ISO 8502-4, C. */
export const DEW_MARGIN = 3;

/** Whether a surface is too near to the dew point, and by how much it clears it, C. */
export function dewCheck(
  temperature: number,
  humidity: number,
  surface: number,
): { readonly dew: number; readonly clears: number; readonly ok: boolean } {
  const dew = dewPoint(temperature, humidity);
  const clears = surface - dew;
  return { dew, clears, ok: clears >= DEW_MARGIN };
}

/** Minutes to spray a coat on a piece: strokes over its area, and the turning between them; half a minute at the least. */
export function sprayMinutes(
  areaM2: number,
  gun: Pick<Gun, 'fanCm' | 'distanceCm'>,
  coat: Pick<PlannedCoat, 'speedCmS' | 'overlap'> & { readonly distanceCm?: number },
): number {
  const fan = fanAt(gun, coat.distanceCm ?? gun.distanceCm);
  return Math.max(0.5, ((areaM2 * 1e4) / (coat.speedCmS * 60 * fan * (1 - coat.overlap))) * TURNING);
}

/** The whole spraying of a job: coats, order of pieces, and what waits for what. */
export function planJob(q: JobPlanInput): JobPlan {
  // Layers out of one cup are one product: that of the first of them.
  const cup = (layer: StackLayer) => cupOf(layer, q.layers);
  const productOf = (layer: StackLayer) =>
    productFor(q.layers.find((l) => l.id === cup(layer)) ?? layer, q.library, q.products, q.named);
  const areaM2 = q.pieces.reduce((sum, p) => sum + p.areaM2, 0);
  const coats = coatPlan({
    layers: q.layers,
    library: q.library,
    productOf,
    cupOf: cup,
    paceOf: (layer) => {
      const product = productOf(layer);
      if (!product) return 1;
      return reducerPace(product, reducerFor(product, q.temperatureC, areaM2, q.reducers?.[cup(layer)]));
    },
    gun: q.gun,
    school: q.settings.school,
    grip: q.settings.grip,
    tack: q.settings.tack,
    edits: q.settings.edits,
  });
  const flashes = coats.map(
    (c) =>
      c.typedFlash ??
      flashMinutes({
        minutesAt20: c.flashMinutes,
        temperature: q.temperatureC,
        film: Math.max(0.25, c.film),
        humidity: q.humidity,
        blown: q.settings.blown && c.chemistry !== 'two-pack',
        chemistry: c.chemistry,
      }),
  );
  const air: BoothAir = {
    towards: q.settings.airTowards,
    openMinutes: Math.max(SHORTEST_FLASH, ...flashes) * OPEN_SHARE,
    minutesPerM2: sprayMinutes(1, q.gun, { speedCmS: q.gun.speedCmS, overlap: 0.75 }),
  };
  const advised = bestOrder(q.pieces, air);
  const own = q.settings.order;
  const order = own
    ? [...advised].sort((a, b) => {
        const [i, j] = [own.indexOf(a.id), own.indexOf(b.id)];
        return (i < 0 ? own.length : i) - (j < 0 ? own.length : j);
      })
    : advised;
  // What the painter typed is law; else its flash, and longer under two-pack clear, tinted or not.
  const beforeClear = q.settings.beforeClearMinutes ?? BEFORE_CLEAR;
  const isClear = (c: PlannedCoat | undefined) =>
    c?.chemistry === 'two-pack' && (c.kind === 'clear' || c.kind === 'effect');
  const waits = coats.map((c, k) =>
    c.typedFlash === null && c.chemistry !== 'two-pack' && isClear(coats[k + 1])
      ? Math.max(flashes[k]!, beforeClear)
      : flashes[k]!,
  );
  // The window of a coat closes by its sheet, sooner in the warm; never before the coat has flashed.
  const closes = coats.map((c, k) =>
    c.recoatMinutes === null ? null : Math.max(waits[k]!, c.recoatMinutes * 2 ** ((20 - q.temperatureC) / 10)),
  );
  const runs: BoothTask[] = [];
  const tasks: TimeTask[] = [];
  coats.forEach((coat, k) => {
    const below = coats[k - 1];
    for (const piece of order) {
      runs.push({ coatId: coat.id, pieceId: piece.id, waitMinutes: waits[k]!, closesMinutes: closes[k]! });
      tasks.push({
        id: taskKey({ coatId: coat.id, pieceId: piece.id }),
        coatId: coat.id,
        pieceId: piece.id,
        minutes: sprayMinutes(piece.areaM2, q.gun, coat),
        painter: true,
        batch: coat.cupId,
        after: below
          ? [{ id: taskKey({ coatId: below.id, pieceId: piece.id }), min: waits[k - 1]!, max: closes[k - 1]! }]
          : [],
      });
    }
  });
  const last = coats.at(-1);
  if (q.settings.bake && last)
    tasks.push({
      id: BAKE,
      coatId: null,
      pieceId: null,
      minutes: BAKE_MINUTES,
      painter: false,
      batch: null,
      after: order.map((p) => ({
        id: taskKey({ coatId: last.id, pieceId: p.id }),
        min: Math.max(STANDING, flashes.at(-1)!),
        max: null,
      })),
    });
  const batches = [...new Map(coats.map((c) => [c.cupId, c])).values()].map((c) => ({
    id: c.cupId,
    name: c.name,
    mixMinutes: MIX_MINUTES,
    potMinutes: c.potLifeMinutes === null ? null : potLifeAt(c.potLifeMinutes, q.temperatureC),
  }));
  return { coats, flashes, waits, order, advised, air, runs, tasks, batches };
}

/** Pieces with an area as they stand in the booth; those not placed yet stand in a row. */
export function boothPieces(
  pieces: readonly (ShapedPiece & {
    readonly id: string;
    readonly name: string;
    readonly x: number | null;
    readonly y: number | null;
    readonly first: boolean;
  })[],
): BoothPiece[] {
  return pieces.map((p, i) => ({
    id: p.id,
    name: p.name,
    x: p.x ?? 1 + (i % 4) * 1.3,
    y: p.y ?? 1 + Math.floor(i / 4) * 1.3,
    areaM2: pieceArea(p) ?? 0.1,
    first: p.first,
  }));
}
