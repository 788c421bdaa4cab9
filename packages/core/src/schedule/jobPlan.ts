import type { Gun } from '../application/guns';
import type { StackLayer } from '../layers';
import type { Library } from '../materials/ownMaterials';
import type { Product, ProductKind } from '../mixing/products';
import { potLifeAt } from '../mixing/voc';
import { pieceArea, type ShapedPiece } from '../mixing/batch';
import { bestOrder, type BoothAir, type BoothPiece } from './boothOrder';
import type { BoothTask } from './boothRun';
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
const KIND_OF_FAMILY = { pearl: 'mid coat', candy: 'intercoat', 'tinted-clear': 'tinted clear' } as const;

/** Kind of product a layer is sprayed with. */
export function productKindOf(layer: Pick<StackLayer, 'kind' | 'materialId'>, library: Library): ProductKind {
  if (layer.kind !== 'effect') return KIND_OF[layer.kind];
  const system = library.systems.find((s) => s.id === layer.materialId);
  return system ? KIND_OF_FAMILY[system.family] : 'mid coat';
}

/** What tells cups apart: layers of the same stuff at the same strength come out of one. */
export function cupKey(layer: Pick<StackLayer, 'kind' | 'materialId' | 'strength'>): string {
  return `${layer.kind}/${layer.materialId}/${layer.kind === 'effect' ? layer.strength : ''}`;
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
}

export interface JobPlanInput {
  readonly layers: readonly StackLayer[];
  readonly library: Library;
  readonly products: readonly Product[];
  readonly named: Readonly<Record<string, string>>;
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
  readonly order: readonly BoothPiece[];
  readonly advised: readonly BoothPiece[];
  readonly air: BoothAir;
  readonly runs: readonly BoothTask[];
  readonly tasks: readonly TimeTask[];
  readonly batches: readonly TimeBatch[];
}

/** Minutes: from the last effect coat to clear at the least, standing before a bake, the bake itself. Common practice (no source). */
const BEFORE_CLEAR = 20;
const STANDING = 15;
const BAKE_MINUTES = 30;
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
  gun: Pick<Gun, 'fanCm'>,
  coat: Pick<PlannedCoat, 'speedCmS' | 'overlap'>,
): number {
  return Math.max(0.5, ((areaM2 * 1e4) / (coat.speedCmS * 60 * gun.fanCm * (1 - coat.overlap))) * TURNING);
}

/** The whole spraying of a job: coats, order of pieces, and what waits for what. */
export function planJob(q: JobPlanInput): JobPlan {
  const coats = coatPlan({
    layers: q.layers,
    library: q.library,
    // Layers out of one cup are one product: that of the first of them.
    productOf: (layer) =>
      productFor(q.layers.find((l) => cupKey(l) === cupKey(layer)) ?? layer, q.library, q.products, q.named),
    gun: q.gun,
    school: q.settings.school,
    grip: q.settings.grip,
    tack: q.settings.tack,
    edits: q.settings.edits,
  });
  const flashes = coats.map((c) =>
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
  // Least wait on a piece after each coat: its flash, and longer before the first clear over effect.
  const waits = coats.map((c, k) =>
    c.kind === 'effect' && coats[k + 1]?.kind === 'clear' ? Math.max(flashes[k]!, BEFORE_CLEAR) : flashes[k]!,
  );
  const runs: BoothTask[] = [];
  const tasks: TimeTask[] = [];
  coats.forEach((coat, k) => {
    const below = coats[k - 1];
    for (const piece of order) {
      runs.push({ coatId: coat.id, pieceId: piece.id, waitMinutes: waits[k]! });
      const min = waits[k - 1] ?? 0;
      const recoat = below?.recoatMinutes ?? null;
      tasks.push({
        id: `${coat.id}|${piece.id}`,
        minutes: sprayMinutes(piece.areaM2, q.gun, coat),
        painter: true,
        batch: coat.name,
        after: below
          ? [
              {
                id: `${below.id}|${piece.id}`,
                min,
                max: recoat === null ? null : Math.max(min, recoat * 2 ** ((20 - q.temperatureC) / 10)),
              },
            ]
          : [],
      });
    }
  });
  const last = coats.at(-1);
  if (q.settings.bake && last)
    tasks.push({
      id: 'bake',
      minutes: BAKE_MINUTES,
      painter: false,
      batch: null,
      after: order.map((p) => ({ id: `${last.id}|${p.id}`, min: Math.max(STANDING, flashes.at(-1)!), max: null })),
    });
  const batches = [...new Map(coats.map((c) => [c.name, c])).values()].map((c) => ({
    id: c.name,
    mixMinutes: MIX_MINUTES,
    potMinutes: c.potLifeMinutes === null ? null : potLifeAt(c.potLifeMinutes, q.temperatureC),
  }));
  return { coats, flashes, order, advised, air, runs, tasks, batches };
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
