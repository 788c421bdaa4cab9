import { fanAt, settingsForFilm, type GunSettings } from './gunFilm';
import type { Gun } from '../products/guns';
import type { SetUp } from './setUp';
import { FAMILIES, type FamilyRow } from '../finishes/families';
import { canWait, wayOf } from '../products/ways';
import type { Library } from '../materials/ownMaterials';
import type { Product } from '../products/products';
import { STYLES, type StyleId } from '../finishes/styles';
import { LAYER_NAMES, type StackLayer } from '../finishes/layers';
import type { Chemistry } from '../products/products';

/** How the effect coats are laid. */
export type School = 'wet' | 'mist';

/** One coat of the plan, the same for every piece. */
export interface PlannedCoat extends GunSettings {
  /** Stable for edits and for what is logged: layer, school and number. */
  readonly id: string;
  readonly layerId: string;
  /** First layer of the cup it comes out of: layers of the same stuff at the same strength share one. */
  readonly cupId: string;
  readonly kind: StackLayer['kind'];
  readonly name: string;
  readonly number: number;
  readonly of: number;
  readonly style: StyleId;
  /** Dry film against a nominal full coat. */
  readonly film: number;
  /** um. */
  readonly filmUm: number;
  /** Counts as film of the recipe; grip and tack coats do not. */
  readonly counted: boolean;
  /** Translucent: the whole side is walked, or doubled edges go dark. */
  readonly walk: boolean;
  readonly chemistry: Chemistry;
  /** Of a nominal coat at 20 C with its reducer, minutes. */
  readonly flashMinutes: number;
  /** The wait is of this coat as it is: its film does not change it. */
  readonly flashAsIs: boolean;
  /** How the gun is led, where more is to be said than its figures. */
  readonly led: string | null;
  /** What the painter says this coat waits, minutes: used as it is. Null where it is worked out. */
  readonly typedFlash: number | null;
  /** Volume solids ready to spray, fraction. */
  readonly volumeSolids: number;
  readonly recoatMinutes: number | null;
  readonly potLifeMinutes: number | null;
  readonly caution: string;
}

/** How much further away a coat of a style is laid than a full one; common practice (no source). */
export const awayOf = (style: StyleId): number => (style === 'control' ? 2 : style === 'light' ? 1.4 : 1);
/** More air for a control coat, bar; common practice (no source). */
export const CONTROL_BAR = 0.2;

/** What a painter changed of a coat. `flashMinutes` is the wait they want after it, as typed. */
export type CoatEdit = Partial<GunSettings & Pick<PlannedCoat, 'flashMinutes'>>;

export interface CoatPlanInput {
  readonly layers: readonly StackLayer[];
  readonly library: Library;
  readonly productOf: (layer: StackLayer) => Product | null;
  /** First layer of the cup a layer comes out of. */
  readonly cupOf: (layer: StackLayer) => string;
  /** Flash against the sheet's, from the reducer that is in the cup. */
  readonly paceOf: (layer: StackLayer) => number;
  readonly gun: Gun;
  readonly school: School;
  /** A grip coat before the effect coats, a tack coat before the clear. */
  readonly grip: boolean;
  readonly tack: boolean;
  readonly edits: Readonly<Record<string, CoatEdit>>;
  /** The set-up its card was sprayed with, for the layers of a mix; null where there is no card. */
  readonly cardOf?: (layer: StackLayer) => SetUp | null;
}

const CAUTIONS: Record<Chemistry, string> = {
  'two-pack':
    'Isocyanates: air-fed respirator, skin and eyes covered, exhaust on; never blow air on it. The sheet and local rules come first.',
  solvent: 'Solvent: exhaust on, no spark or flame, mask by its sheet; local rules come first.',
  waterborne: 'Mask by its sheet, air moving; keep it from frost. The sheet and local rules come first.',
};

/** Starting values without a product; common practice (no source). */
const USUAL: Record<
  StackLayer['kind'],
  { flash: number; chemistry: Chemistry; pressure: number; tip: number; solids: number }
> = {
  primer: { flash: 12, chemistry: 'two-pack', pressure: 2, tip: 1.8, solids: 0.42 },
  sealer: { flash: 15, chemistry: 'two-pack', pressure: 1.8, tip: 1.4, solids: 0.36 },
  ground: { flash: 12, chemistry: 'solvent', pressure: 1.6, tip: 1.3, solids: 0.25 },
  effect: { flash: 10, chemistry: 'solvent', pressure: 1.4, tip: 1.3, solids: 0.2 },
  lock: { flash: 12, chemistry: 'solvent', pressure: 1.4, tip: 1.3, solids: 0.22 },
  clear: { flash: 12, chemistry: 'two-pack', pressure: 1.8, tip: 1.3, solids: 0.44 },
};

/**
 * The coats of a stack in the order they are sprayed, each with how to lay it. A layer of 2.5 coats is two and a half coat;
 * the mist school lays the same effect film in light coats. Distances, overlaps and pressures are common practice (no source);
 * needle and speed follow from the film the coat has to lay.
 */
export function coatPlan(q: CoatPlanInput): PlannedCoat[] {
  const plan: PlannedCoat[] = [];
  const way = wayOf(q.gun);
  for (const [place, layer] of q.layers.entries()) {
    const product = q.productOf(layer);
    const usual = USUAL[layer.kind];
    const system = layer.kind === 'effect' ? q.library.systems.find((s) => s.id === layer.materialId) : undefined;
    const ground = layer.kind === 'ground' ? q.library.grounds.find((g) => g.id === layer.materialId) : undefined;
    const row = system ? FAMILIES[system.family] : null;
    const name = system?.name ?? ground?.name ?? LAYER_NAMES[layer.kind];
    const chemistry = product?.chemistry ?? (row?.twoPack ? 'two-pack' : usual.chemistry);
    const translucent = layer.kind === 'effect';
    const metallic = !!ground?.flakes;
    const mist =
      (way?.light && layer.kind !== 'clear') || (q.school === 'mist' && translucent && layer.style !== 'control');
    const films = filmsOf(layer, mist);
    const lay = (style: StyleId, film: number, number: number, of: number, counted: boolean): PlannedCoat => {
      const control = style === 'control';
      const light = style === 'light' || mist;
      const id = `${layer.id}/${mist ? 'mist' : 'wet'}/${counted ? number : style}`;
      const card = q.cardOf?.(layer) ?? null;
      const near =
        card?.distanceCm ?? way?.distanceCm ?? (q.gun.kind === 'airbrush' ? q.gun.distanceCm : metallic ? 28 : 15);
      const filmUm = film * layer.filmUm;
      const volumeSolids =
        product?.volumeSolids ??
        q.library.carriers.find((c) => c.id === system?.carrierId)?.volumeSolids ??
        usual.solids;
      const ownTip = q.gun.kind === 'airbrush' || way !== null;
      const tipMm = ownTip ? q.gun.tipMm : (card?.tipMm ?? product?.tipMm ?? tipOf(usual.tip, row));
      const pressureBar = Number(
        way
          ? q.gun.pressureBar.toFixed(2)
          : ((card?.pressureBar ?? product?.pressureBar ?? usual.pressure) + (control ? CONTROL_BAR : 0)).toFixed(2),
      );
      const laid = settingsForFilm(
        q.gun,
        {
          overlap: mist ? MIST_OVERLAP : (card?.overlap ?? usualOverlap(translucent, chemistry, light || metallic)),
          distanceCm: Math.round(near * (way ? 1 : awayOf(control ? 'control' : light ? 'light' : style))),
          pressureBar,
          tipMm,
          turns: card?.turns ?? null,
        },
        volumeSolids,
        filmUm,
      );
      const { flashMinutes: typedFlash = null, ...edit } = q.edits[id] ?? {};
      const coat: PlannedCoat = {
        id,
        layerId: layer.id,
        cupId: q.cupOf(layer),
        kind: layer.kind,
        name,
        number,
        of,
        style,
        film,
        filmUm,
        counted,
        ...laid,
        walk: translucent,
        chemistry,
        flashMinutes: way
          ? canWait(layer.kind, number === of, q.layers[place + 1]?.kind ?? null)
          : (product?.flashMinutes ?? system?.flashMinutes ?? usual.flash) * q.paceOf(layer),
        flashAsIs: way !== null,
        led: row?.gun.led ?? null,
        typedFlash,
        volumeSolids,
        recoatMinutes: product?.recoatMinutes ?? null,
        potLifeMinutes: product?.potLifeMinutes ?? null,
        caution: way?.caution ?? CAUTIONS[chemistry],
      };
      return { ...coat, ...edit };
    };
    const firstEffect = translucent && !plan.some((c) => c.kind === 'effect');
    const firstClear = layer.kind === 'clear' && !plan.some((c) => c.kind === 'clear');
    if (q.grip && firstEffect) plan.push(lay('grip', STYLES.grip.film, 0, films.length, false));
    if (q.tack && firstClear) plan.push(lay('tack', STYLES.tack.film, 0, films.length, false));
    films.forEach(({ style, film }, i) => plan.push(lay(style, film, i + 1, films.length, true)));
  }
  return plan;
}

/** The usual tip, or where a family's gun wants another, the middle of what suits it, mm. */
function tipOf(usual: number, row: FamilyRow | null): number {
  const [low, high] = row?.gun.tipMm ?? [usual, usual];
  return usual >= low && usual <= high ? usual : (low + high) / 2;
}

/** Overlap of mist coats: 80 %, common practice (no source). */
const MIST_OVERLAP = 0.8;

/** Overlap of passes where no card says another; common practice (no source). */
function usualOverlap(translucent: boolean, chemistry: Chemistry, even: boolean): number {
  if (translucent || chemistry === 'waterborne') return 0.75;
  return even ? 0.66 : 0.5;
}

function filmsOf(layer: StackLayer, mist: boolean): { style: StyleId; film: number }[] {
  const full = STYLES[layer.style].film;
  if (mist) {
    const total = layer.coats * full;
    const n = Math.max(1, Math.round(total / STYLES.light.film));
    return Array.from({ length: n }, () => ({ style: 'light' as const, film: total / n }));
  }
  const whole = Math.floor(layer.coats + 1e-9);
  const rest = layer.coats - whole;
  return [
    ...Array.from({ length: whole }, () => ({ style: layer.style, film: full })),
    ...(rest > 1e-6 ? [{ style: 'half' as const, film: rest * full }] : []),
  ];
}

/** A coat as it is called: "Cinder candy 2 of 3", "sealer", "clear, tack coat". */
export function sayCoat(coat: PlannedCoat): string {
  if (!coat.counted) return `${coat.name}, ${STYLES[coat.style].name.toLowerCase()}`;
  return coat.of > 1 ? `${coat.name} ${coat.number} of ${coat.of}` : coat.name;
}

/** Turning, walking and looking, as a share of the strokes' own time; ours. */
const TURNING = 1.6;

/** Minutes to spray a coat on an area: strokes over it, and the turning between them; half a minute at the least. */
export function sprayMinutes(
  areaM2: number,
  gun: Pick<Gun, 'fanCm' | 'distanceCm'>,
  coat: Pick<PlannedCoat, 'speedCmS' | 'overlap'> & { readonly distanceCm?: number },
): number {
  const fan = fanAt(gun, coat.distanceCm ?? gun.distanceCm);
  return Math.max(0.5, ((areaM2 * 1e4) / (coat.speedCmS * 60 * fan * (1 - coat.overlap))) * TURNING);
}
