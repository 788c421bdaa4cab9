import type { PreparedGround } from '../optics/preparedGround';
import { xyzToLab, type Lab } from '../colour/lab';
import { shiftSpectrum, WAVELENGTH_COUNT } from '../colour/spectrum';
import { weightsOf, D65_10, type Viewing, type Xyz } from '../colour/tristimulus';
import { adjustCoat, type PreparedCoat } from '../optics/coat';
import type { FastModel, Pile } from '../optics/stack';
import { NOMINAL_HAND, STYLES, type CoatStyle, type Hand } from '../finishes/styles';

/** What is laid over the ground, n times. */
export interface EffectCoats {
  /** One nominal full coat. */
  readonly coat: PreparedCoat;
  readonly style?: CoatStyle;
  readonly hand?: Hand;
  /** Control coats on top of the n coats; none when left out. */
  readonly controlCoats?: number;
  /** Of n coats those above some count are laid in this style instead; see `thenLaid`. */
  readonly then?: { readonly after: number; readonly style: CoatStyle } | null;
}

/** The effect coats of n coats of a recipe, ground side first; none for n = 0. */
export function effectCoats(recipe: EffectCoats, n: number): PreparedCoat[] {
  const hand = recipe.hand ?? NOMINAL_HAND;
  const { coat } = recipe;
  const dyed = hand.hueNm ? { ...coat, a: shiftSpectrum(coat.a, hand.hueNm) } : coat;
  const lay = (film: number, spread: number): PreparedCoat =>
    adjustCoat(dyed, {
      factor: film * hand.film * coat.factor,
      tauScale: hand.flake,
      tiltScale: spread * hand.spread,
      edgeScale: hand.edge ?? 1,
    });
  const style = recipe.style ?? { film: 1, spread: 1 };
  if (n <= 0) return [];
  const first = recipe.then ? Math.min(n, recipe.then.after) : n;
  const coats = [lay(first * style.film, style.spread)];
  if (recipe.then && n > first) coats.push(lay((n - first) * recipe.then.style.film, recipe.then.style.spread));
  if (recipe.controlCoats) coats.push(lay(recipe.controlCoats * STYLES.control.film, STYLES.control.spread));
  return coats;
}

/** Tristimulus values per geometry of radiance factors [geometry * 31 + wavelength], Y of the perfect diffuser = 100. */
export function factorsToXyz(factors: Float64Array, viewing: Viewing = D65_10): Xyz[] {
  const w = weightsOf(viewing);
  const all: Xyz[] = [];
  for (let at = 0; at < factors.length; at += WAVELENGTH_COUNT) {
    let x = 0;
    let y = 0;
    let z = 0;
    for (let i = 0; i < WAVELENGTH_COUNT; i++) {
      const v = factors[at + i]!;
      x += v * w.x[i]!;
      y += v * w.y[i]!;
      z += v * w.z[i]!;
    }
    all.push([x, y, z]);
  }
  return all;
}

/** Lab per geometry of radiance factors [geometry * 31 + wavelength]. */
export function factorsToLabs(factors: Float64Array, viewing: Viewing = D65_10): Lab[] {
  const { white } = weightsOf(viewing);
  return factorsToXyz(factors, viewing).map((xyz) => xyzToLab(xyz, white));
}

/** A pile per coat count, to be laid over many grounds that share `groundCoats`. */
export function ladderPiles(
  model: FastModel,
  recipe: EffectCoats,
  counts: readonly number[],
  groundCoats: readonly PreparedCoat[],
): Pile[] {
  return counts.map((n) => model.pile([...groundCoats, ...effectCoats(recipe, n)]));
}

/** Colours of a ladder: for each coat count, Lab per geometry of the model. */
export function ladderLabs(
  model: FastModel,
  ground: PreparedGround,
  recipe: EffectCoats,
  counts: readonly number[],
  viewing: Viewing = D65_10,
): Lab[][] {
  return ladderPiles(model, recipe, counts, ground.coats).map((pile) =>
    factorsToLabs(model.over(ground, pile), viewing),
  );
}

/** Dry effect film of n coats against the nominal coat, for the film section. */
export function filmFactor(recipe: EffectCoats, n: number): number {
  return effectCoats(recipe, n).reduce((sum, c) => sum + c.factor, 0);
}
