import { Matrix, solve } from 'ml-matrix';
import { reflectanceToLab, type Lab } from '../colour/lab';
import { shiftSpectrum, WAVELENGTHS_NM } from '../colour/spectrum';
import type { EffectCoats } from '../matching/ladder';
import { adjustCoat, thickenFlakes, type PreparedCoat } from '../optics/coat';
import type { Film } from '../optics/film';
import type { PreparedGround } from '../optics/preparedGround';

/**
 * How a painter's card can differ from the nominal ladder, film aside. The first seven are of the coats: flake against dye, flake
 * spread, edge scatter and thickness of the flake's layers (as logarithms), the dye's shift in nm, its band's width and the
 * pigment's absorption (logarithms). Then the ground's look, Lab; then the flakes of a metallic ground: tilt, edge, cover, tint.
 */
export type VariationId =
  | 'flake'
  | 'spread'
  | 'edge'
  | 'layers'
  | 'hue'
  | 'band'
  | 'pigment'
  | 'groundL'
  | 'groundA'
  | 'groundB'
  | 'underTilt'
  | 'underEdge'
  | 'underCover'
  | 'underTint';

/** What is believed of one of them before the card is read. */
export interface Believed {
  readonly id: VariationId;
  readonly mean: number;
  readonly sd: number;
}

/**
 * Usual spreads of pots, grounds and hands. Flake against dye, hue, band, pigment and layers are batches; spread and edge are the
 * hand; the ground is how well a named shade is hit. Common practice (no source); the shop's own cards narrow the hand.
 */
const USUAL_SD: Readonly<Record<VariationId, number>> = {
  flake: 0.15,
  spread: 0.12,
  edge: 0.3,
  layers: 0.035,
  hue: 5,
  band: 0.08,
  pigment: 0.15,
  groundL: 1.2,
  groundA: 1.2,
  groundB: 1.2,
  underTilt: 0.11,
  underEdge: 0.25,
  underCover: 0.12,
  underTint: 0.1,
};
/** The solid under a metallic shows little, so little is known of it. */
const GROUND_L_UNDER_METALLIC = 2;

/** What earlier cards say of a hand, in the units above; film aside. */
export type KnownVariation = Readonly<Partial<Record<VariationId, { readonly mean: number; readonly sd: number }>>>;

/** What a card of these coats over this ground can say anything about, with what is believed of it. */
export function believedOf(ground: PreparedGround, { coat }: EffectCoats, known: KnownVariation = {}): Believed[] {
  const hasFlakes = coat.flakes.length > 0;
  const hasDye = coat.a.some((v) => v > 0.02);
  const hasPigment = coat.k.some((v) => v > 0);
  const hasLayers = coat.flakes.some((f) => f.optics.kind !== 'scalar');
  const under = ground.coats.filter((c) => c.flakes.length > 0);
  const ids: VariationId[] = [
    ...(hasFlakes && hasDye ? (['flake'] as const) : []),
    ...(hasFlakes ? (['spread', 'edge'] as const) : []),
    ...(hasFlakes && hasLayers ? (['layers'] as const) : []),
    ...(hasDye ? (['hue', 'band'] as const) : []),
    ...(hasPigment ? (['pigment'] as const) : []),
    'groundL',
    'groundA',
    'groundB',
    ...(under.length ? (['underTilt', 'underEdge', 'underCover'] as const) : []),
    ...(under.length && ground.coats.some((c) => c.a.some((v) => v > 0.02)) ? (['underTint'] as const) : []),
  ];
  return ids.map((id) => ({
    id,
    mean: known[id]?.mean ?? 0,
    sd: known[id]?.sd ?? (id === 'groundL' && under.length ? GROUND_L_UNDER_METALLIC : USUAL_SD[id]),
  }));
}

/** The shapes a solid ground's spectrum can be bent by: lighter, toward long waves, toward the middle. */
const SHAPES = [
  () => 1,
  (nm: number) => (nm - 550) / 150,
  (nm: number) => 1 - 2 * Math.min(1, Math.abs(nm - 550) / 120),
].map((f) => Float64Array.from(WAVELENGTHS_NM, f));

/** A ground with its look moved by a small Lab offset: its spectrum bent smoothly, kept inside 0..0.995. */
export function shiftGround(ground: PreparedGround): (offset: Lab) => PreparedGround {
  const base = reflectanceToLab(ground.albedo);
  const h = 0.02;
  const columns = SHAPES.map((shape) => {
    const moved = reflectanceToLab(ground.albedo.map((v, i) => v * (1 + h * shape[i]!)));
    return moved.map((v, k) => (v - base[k]!) / h);
  });
  const matrix = new Matrix([0, 1, 2].map((k) => columns.map((c) => c[k]!)));
  return (offset) => {
    if (offset.every((v) => v === 0)) return ground;
    const bend = solve(matrix, Matrix.columnVector([...offset])).to1DArray();
    const albedo = ground.albedo.map((v, i) =>
      Math.min(0.995, Math.max(0, v * (1 + SHAPES.reduce((s, shape, k) => s + bend[k]! * shape[i]!, 0)))),
    );
    return { ...ground, albedo };
  };
}

/** A dye's absorption with its band wider (above 1) or narrower: a becomes a_max (a / a_max)^(1 / width). */
function widenBand(a: Float64Array, width: number): Float64Array {
  const most = a.reduce((m, v) => Math.max(m, v), 0);
  return most > 0 && width !== 1 ? a.map((v) => most * (v / most) ** (1 / width)) : a;
}

/** Makes the ground and one nominal full coat as they are at given values, in the order of `believed`. */
export function createVariation(film: Film, ground: PreparedGround, coat: PreparedCoat, believed: readonly Believed[]) {
  const moveGround = shiftGround(ground);
  return (values: readonly number[]): { readonly ground: PreparedGround; readonly coat: PreparedCoat } => {
    const at = (id: VariationId): number => {
      const p = believed.findIndex((b) => b.id === id);
      return p < 0 ? 0 : values[p]!;
    };
    const hue = at('hue');
    const shifted = hue === 0 ? coat.a : shiftSpectrum(coat.a, hue);
    const dyed = { ...coat, a: widenBand(shifted, Math.exp(at('band'))), k: times(coat.k, at('pigment')) };
    const moved = moveGround([at('groundL'), at('groundA'), at('groundB')]);
    return {
      coat: adjustCoat(thickenFlakes(film, dyed, Math.exp(at('layers'))), {
        tauScale: Math.exp(at('flake')),
        tiltScale: Math.exp(at('spread')),
        edgeScale: Math.exp(at('edge')),
      }),
      ground: {
        ...moved,
        coats: ground.coats.map((c) =>
          adjustCoat(c, {
            dyeScale: Math.exp(at('underTint')),
            tauScale: Math.exp(at('underCover')),
            tiltScale: Math.exp(at('underTilt')),
            edgeScale: Math.exp(at('underEdge')),
          }),
        ),
      },
    };
  };
}

const times = (values: Float64Array, ln: number): Float64Array => {
  const ratio = Math.exp(ln);
  return ln === 0 ? values : values.map((v) => v * ratio);
};
