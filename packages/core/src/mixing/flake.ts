import { CoreError } from '../errors';
import type { GroundMaterial } from '../materials/grounds';
import { createRandom } from '../numeric/random';

/** One size in a mix of flakes, by weight. */
export interface FlakeSize {
  /** Across the flats of the hexagon, um. */
  readonly sizeUm: number;
  readonly thicknessUm: number;
  /** g/cm3. */
  readonly density: number;
  readonly parts: number;
}

const lambdaOf = (cover: number): number => -Math.log1p(-cover);

/** Area a gram of the mixed flakes has, m2/g: sizes mix by area. @throws CoreError `badQuantity` */
export function flakeAreaPerGram(mix: readonly FlakeSize[]): number {
  const parts = mix.reduce((s, f) => s + f.parts, 0);
  if (!(parts > 0) || mix.some((f) => f.parts < 0 || !(f.density > 0) || !(f.thicknessUm > 0)))
    throw new CoreError('badQuantity', 'Flakes need parts, a thickness and a density above zero.');
  return mix.reduce((s, f) => s + f.parts / parts / (f.density * f.thicknessUm), 0);
}

/** Ground and flake that look less different than this, CIEDE2000, pass for one colour; ours. */
const ALIKE = 18;
/** Cover from which what lies between the flakes is no longer seen; ours. */
const FULL_COVER = 0.95;

/** What a cover of flakes over a ground comes to. */
export interface CoverAdvice {
  readonly cover: number;
  /** The ground must not be seen between the flakes. */
  readonly full: boolean;
  /** Why. */
  readonly why: 'silver' | 'alike' | 'black' | 'unlike';
}

/**
 * Cover that is wanted over a ground: partial over silver or the flake's own colour, full over black and over any other colour.
 * Common practice (no source); the figures are ours.
 * @param difference of ground and flake as they look, CIEDE2000
 */
export function wantedCover(ground: GroundMaterial, difference: number): CoverAdvice {
  if (ground.flakes && !ground.flakes.tint) return { cover: 0.7, full: false, why: 'silver' };
  if (difference <= ALIKE) return { cover: 0.7, full: false, why: 'alike' };
  return { cover: 0.97, full: true, why: ground.lab[0] < 25 && !ground.flakes ? 'black' : 'unlike' };
}

/** Whether the ground would show between flakes that should hide it, at a cover that was advised or typed. */
export function groundShows(advice: CoverAdvice, cover: number): boolean {
  return advice.full && cover < FULL_COVER;
}

export interface FlakeDose {
  /** On the piece in all, g/m2. */
  readonly gramsPerM2: number;
  /** In a litre ready to spray, g. */
  readonly gramsPerLitre: number;
  readonly coats: number;
  /** What a dipped stirring stick shows at its own wet film. */
  readonly stickCover: number;
  /** Cover after each coat. */
  readonly covers: readonly number[];
}

/** Most flake a litre takes before it clogs; common practice (no source), g. */
export const MOST_FLAKE_PER_LITRE = 100;
/** More coats than this are no plan. */
const MOST_COATS = 1000;
/** Wet film that hangs on a stick, um; ours. */
export const STICK_FILM_UM = 120;

/**
 * Flake for a cover: the fewest coats at which a litre holds no more than `most` grams, then the dose that gives the cover in
 * just those coats. Poisson cover: c = 1 - exp(-g/m2 x m2/g). @param cover above 0, below 1. @throws CoreError outside it,
 * or where a thousand coats would not do
 */
export function flakeDose(q: {
  readonly mix: readonly FlakeSize[];
  readonly cover: number;
  /** Dry film of a carrier coat, um, and its volume solids. */
  readonly filmUm: number;
  readonly volumeSolids: number;
  readonly most?: number;
  /** Coats it is laid in; the fewest a litre allows when left out. */
  readonly coats?: number;
}): FlakeDose {
  if (!(q.cover > 0 && q.cover < 1)) throw new CoreError('badQuantity', 'The cover lies between 0 and 100 %.');
  const area = flakeAreaPerGram(q.mix);
  const gramsPerM2 = lambdaOf(q.cover) / area;
  const litresPerM2 = q.filmUm / 1000 / q.volumeSolids;
  const coats = q.coats ?? Math.max(1, Math.ceil(gramsPerM2 / litresPerM2 / (q.most ?? MOST_FLAKE_PER_LITRE) - 1e-9));
  if (!(coats <= MOST_COATS))
    throw new CoreError('badQuantity', `That would take over ${MOST_COATS} coats; allow more flake in a litre.`);
  const gramsPerLitre = gramsPerM2 / coats / litresPerM2;
  return {
    gramsPerM2,
    gramsPerLitre,
    coats,
    stickCover: -Math.expm1(-gramsPerLitre * (STICK_FILM_UM / 1000) * area),
    covers: Array.from(
      { length: Math.ceil(coats - 1e-9) },
      (_, i) => -Math.expm1((-gramsPerM2 * Math.min(coats, i + 1) * area) / coats),
    ),
  };
}

/** A flake as it lies: millimetres, turned by `turn` radians; `glint` 0..1 says how it faces the lamp. */
export interface LyingFlake {
  readonly x: number;
  readonly y: number;
  /** Across the flats, mm. */
  readonly size: number;
  readonly turn: number;
  readonly glint: number;
}

/** Area of a hexagon by its width across the flats. */
const HEXAGON = Math.sqrt(3) / 2;

/**
 * Flakes thrown at random on a panel for a cover, one after the other as they land, seeded: the same seed shows the same panel.
 * They are strewn one flake beyond the edges, so that edges are covered like the middle. The flake handed to `visit` is used
 * again for the next one: copy what is kept. @param width mm. @param height mm.
 */
export function scatterFlakes(
  mix: readonly FlakeSize[],
  cover: number,
  width: number,
  height: number,
  seed: number,
  visit: (flake: LyingFlake) => void,
): void {
  const random = createRandom(seed);
  const parts = mix.reduce((s, f) => s + f.parts, 0);
  const area = flakeAreaPerGram(mix);
  const used = mix.filter((f) => f.parts > 0);
  const left = used.map((f) => {
    const size = f.sizeUm / 1000;
    // Its share of the covered area, as flakes on the strewn area.
    const share = f.parts / parts / (f.density * f.thicknessUm) / area;
    const expected = ((width + 2 * size) * (height + 2 * size) * lambdaOf(cover) * share) / (HEXAGON * size * size);
    return Math.floor(expected + random());
  });
  const flake = { x: 0, y: 0, size: 0, turn: 0, glint: 0 };
  for (let all = left.reduce((s, n) => s + n, 0); all > 0; all--) {
    // Sizes land in any order.
    let pick = random() * all;
    let k = 0;
    while (k < left.length - 1 && pick >= left[k]!) pick -= left[k++]!;
    left[k]!--;
    const size = used[k]!.sizeUm / 1000;
    flake.size = size;
    flake.x = random() * (width + 2 * size) - size;
    flake.y = random() * (height + 2 * size) - size;
    flake.turn = (random() * Math.PI) / 3;
    flake.glint = random();
    visit(flake);
  }
}

/**
 * Paints strewn flakes into a picture. @param pixels one number a pixel, row by row, already filled with the ground.
 * @param columns pixels in a row. @param pxPerMm pixels in a millimetre. @param colourOf pixel value of a flake by its glint.
 */
export function paintFlakes(
  pixels: Uint32Array,
  columns: number,
  pxPerMm: number,
  q: { readonly mix: readonly FlakeSize[]; readonly cover: number; readonly seed: number },
  colourOf: (glint: number) => number,
): void {
  const rows = pixels.length / columns;
  scatterFlakes(q.mix, q.cover, columns / pxPerMm, rows / pxPerMm, q.seed, (f) => {
    const reach = (f.size / Math.sqrt(3)) * pxPerMm;
    const half = (f.size / 2) * pxPerMm;
    const [cx, cy] = [f.x * pxPerMm, f.y * pxPerMm];
    const colour = colourOf(f.glint);
    // A pixel is covered when its middle is: over many flakes that covers as much as they do.
    const c0 = Math.cos(f.turn);
    const s0 = Math.sin(f.turn);
    const [c1, s1] = [c0 * 0.5 - s0 * HEXAGON, s0 * 0.5 + c0 * HEXAGON];
    const [c2, s2] = [c0 * -0.5 - s0 * HEXAGON, s0 * -0.5 + c0 * HEXAGON];
    for (let y = Math.max(0, Math.ceil(cy - reach - 0.5)); y <= cy + reach - 0.5 && y < rows; y++) {
      for (let x = Math.max(0, Math.ceil(cx - reach - 0.5)); x <= cx + reach - 0.5 && x < columns; x++) {
        const dx = x + 0.5 - cx;
        const dy = y + 0.5 - cy;
        if (
          Math.abs(dx * c0 + dy * s0) <= half &&
          Math.abs(dx * c1 + dy * s1) <= half &&
          Math.abs(dx * c2 + dy * s2) <= half
        )
          pixels[y * columns + x] = colour;
      }
    }
  });
}

export interface BuryPlan {
  /** How high the flakes stand, um. */
  readonly riseUm: number;
  readonly coats: number;
  /** Film above the flakes after sanding, um. */
  readonly leftUm: number;
}

/**
 * Clear that buries flakes and can be sanded flat. The flakes stand as high as their overlapping layers and the largest one's
 * tilt (95 of 100 lie lower); sanding takes what levels the telegraphed pattern off. Model and defaults are ours.
 * @param tilt degrees rms. @param sandUm taken off by sanding, um. @param keepUm least film left above, um.
 */
export function clearToBury(q: {
  readonly mix: readonly FlakeSize[];
  readonly cover: number;
  readonly tilt: number;
  readonly filmUm: number;
  readonly sandUm: number;
  readonly keepUm: number;
}): BuryPlan {
  const used = q.mix.filter((f) => f.parts > 0);
  const lambda = lambdaOf(q.cover);
  const layers = Math.max(1, Math.ceil(lambda + 1.645 * Math.sqrt(lambda)));
  const thickness = Math.max(...used.map((f) => f.thicknessUm));
  const largest = Math.max(...used.map((f) => f.sizeUm));
  const riseUm = layers * thickness + largest * Math.sin((1.645 * q.tilt * Math.PI) / 180);
  const coats = Math.ceil((riseUm + q.sandUm + q.keepUm) / q.filmUm - 1e-9);
  return { riseUm, coats, leftUm: coats * q.filmUm - q.sandUm - riseUm };
}

/**
 * Volume of each size to one volume of the mix it goes into, ready to spray, so that a litre of both together holds the dose.
 * @param gramsPerLitre under the density of the flake, or there is no such mix
 */
export function flakeVolumes(mix: readonly FlakeSize[], gramsPerLitre: number): number[] {
  const parts = mix.reduce((sum, f) => sum + f.parts, 0);
  const density = parts / mix.reduce((sum, f) => sum + f.parts / f.density, 0);
  const dose = gramsPerLitre / 1000;
  const all = dose / (density - dose);
  return mix.map((f) => ((f.parts / parts) * density * all) / f.density);
}
