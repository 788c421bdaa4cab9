import { describe, expect, it } from '@jest/globals';
import { flatSpectrum } from '../colour/spectrum';
import { EFFECT_PIGMENTS } from '../materials/effectPigments';
import { loadMonteCarlo } from '../testdata/load';
import { prepareCoat, type Coat, type Flakes, type PreparedCoat } from './coat';
import { createFilm } from './film';
import { FIVE_ANGLES, type Geometry } from './geometry';
import { createOptics } from './optics';
import { RATE, ratesLength, writeRates } from './rates';
import { createFastModel, evaluateReference } from './stack';

const film = createFilm(1.5);
const scalar = (reflectance: number, transmittance: number) => ({
  kind: 'scalar' as const,
  reflectance,
  transmittance,
});

type Tier = 'reference' | 'fast';

/** Factor per geometry of a grey stack. */
function factors(
  tier: Tier,
  rho: number,
  coats: readonly Coat[],
  geometries: readonly Geometry[] = FIVE_ANGLES,
): number[] {
  const optics = createOptics(film, geometries);
  const prepared = coats.map((c) => prepareCoat(film, c));
  const ground = { albedo: flatSpectrum(rho) };
  const out =
    tier === 'fast' ? createFastModel(optics).evaluate(ground, prepared) : evaluateReference(optics, ground, prepared);
  return geometries.map((_, g) => out[g * 31]!);
}

const quantile = (values: readonly number[], q: number): number => {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(q * sorted.length))]!;
};

describe.each(['reference', 'fast'] as const)('film stack, %s tier', (tier) => {
  // Source: ray transport of the worked example of the film equations, standard error 0.1 %; and its figures as the closed forms
  // gave them before trapped light forgot its slope, which are to be no nearer.
  it('gives the worked example', () => {
    const coats: Coat[] = [
      { dye: 0.2, flakes: { cover: 0.5, tilt: 8, edge: 0.05, optics: scalar(0.6, 0.3) } },
      { dye: 0.3 },
      { flakes: { cover: 0.3, tilt: 6, edge: 0.1, optics: scalar(0.4, 0.6) } },
    ];
    const before = [0.73156, 0.47126, 0.12183, 0.03232, 0.02638];
    const traced = [0.730516, 0.470739, 0.121404, 0.0316595, 0.0256878];
    factors(tier, 0.4, coats).forEach((f, g) => {
      expect(Math.abs(f / traced[g]! - 1)).toBeLessThan(0.009);
      expect(Math.abs(f / traced[g]! - 1)).toBeLessThan(Math.abs(before[g]! / traced[g]! - 1));
    });
  });

  // Source: this project's own ray tracer (study/rays.ts), 12,000 rays, checked against the first ray transport: five coats of cover 0.7
  // over an albedo of 0.85, hardly anything lost. Chains of flakes and surface make most of it toward the flop.
  it.each([
    [14, 0.08, [1.1447, 1.0389, 0.819, 0.5807, 0.4442]],
    [9, 0.1, [1.759, 1.4084, 0.7593, 0.3549, 0.2881]],
    [19, 0.1, [0.9503, 0.9061, 0.8149, 0.7016, 0.5812]],
  ])('keeps dense, nearly lossless flakes bright at a tilt of %s degrees', (tilt, within, traced) => {
    const coat: Coat = { factor: 5, flakes: { cover: 0.7, tilt, edge: 0, optics: scalar(0.83, 0.17) } };
    factors(tier, 0.85, [coat]).forEach((f, g) => expect(Math.abs(f / traced[g]! - 1)).toBeLessThan(within));
  });

  // Source: limits stated with the film equations.
  it('meets its closed limits: bare ground, dye alone', () => {
    expect(factors(tier, 0.9, [], [{ incidence: 45, aspecular: 45 }])[0]).toBeCloseTo(0.78721, 4);
    const dyed = factors(tier, 0.5, [{ dye: 0.5 }]);
    [0.07068, undefined, 0.07298, undefined, 0.05885].forEach(
      (v, g) => v && expect(Math.abs(dyed[g]! / v - 1)).toBeLessThan(0.002),
    );
  });

  // Source: ray transport, testdata/film-monte-carlo.json. Limits: median and 90th percentile of the relative error.
  it('agrees with ray transport', () => {
    const errors: Record<string, number[]> = { near: [], side: [], far: [] };
    for (const c of loadMonteCarlo()) {
      const ours = factors(tier, c.ground, c.coats, c.geometries);
      c.geometries.forEach((g, j) => {
        const group = Math.abs(g.aspecular) <= 25 ? 'near' : g.aspecular === 45 ? 'side' : 'far';
        errors[group]!.push(Math.abs(ours[j]! / g.factor - 1));
      });
    }
    const limits = {
      reference: { near: [0.005, 0.02], side: [0.008, 0.035], far: [0.016, 0.08] },
      fast: { near: [0.01, 0.04], side: [0.015, 0.05], far: [0.03, 0.12] },
    }[tier];
    for (const [group, [median, ninety]] of Object.entries(limits)) {
      expect(quantile(errors[group]!, 0.5)).toBeLessThanOrEqual(median!);
      expect(quantile(errors[group]!, 0.9)).toBeLessThanOrEqual(ninety!);
    }
  });
});

describe('several kinds of flakes in one coat', () => {
  const film = createFilm(1.5);
  const optics = createOptics(film, FIVE_ANGLES);
  const ground = { albedo: new Float64Array(31).fill(0.6) };
  const kind = (cover: number, tilt: number, reflectance: number, transmittance: number) => ({
    ...{ cover, tilt, edge: 0.1 },
    optics: { kind: 'scalar' as const, reflectance, transmittance },
  });
  const silver = kind(0.4, 7, 0.85, 0);
  const pearl = kind(0.25, 11, 0.3, 0.65);
  const factors = (coats: readonly PreparedCoat[], fast = false) =>
    fast ? createFastModel(optics).evaluate(ground, coats) : evaluateReference(optics, ground, coats);
  const mixed = (flakes: readonly Flakes[]) => [prepareCoat(film, { dye: 0.2, flakes })];
  const near = (a: Float64Array, b: Float64Array, within: number) =>
    a.forEach((v, i) => expect(Math.abs(v / b[i]! - 1)).toBeLessThan(within));

  it.each([false, true])(
    'are one coat when they are one kind, and the sum of their depths when alike (fast %s)',
    (fast) => {
      const one = factors([prepareCoat(film, { dye: 0.2, flakes: silver })], fast);
      expect(factors(mixed([silver, { ...pearl, cover: 0 }]), fast)).toEqual(one);
      // Two halves of one kind: tau adds, so covers join as chances of missing do.
      const half = { ...silver, cover: 1 - Math.sqrt(1 - silver.cover) };
      near(factors(mixed([half, half]), fast), one, 1e-9);
    },
  );

  // The symmetric splitting of Strang 1968: thin layers of each laid there and back come to the mixture.
  it.each([false, true])('come to what thin layers of each come to, in either order (fast %s)', (fast) => {
    const layers = (slices: number) => {
      const thin = [silver, pearl].map((flakes) => ({
        ...prepareCoat(film, { dye: 0.1, flakes }),
        factor: 1 / slices,
      }));
      return Array.from({ length: slices }, (_, i) => (i % 2 ? [...thin].reverse() : thin)).flat();
    };
    const all = factors(mixed([silver, pearl]), fast);
    near(factors(layers(32), fast), all, 0.004);
    near(factors(mixed([pearl, silver]), fast), all, 1e-9);
    // Neither lies on top of the other: that would look otherwise.
    expect(Math.abs(factors(layers(1), fast)[0]! / all[0]! - 1)).toBeGreaterThan(0.01);
  });
});

// A mirror turns no more light into the other class than it sends back: where interference sends next to nothing straight back it still
// mirrors at the critical angle, and the rest must not be less than nothing.
it.each(EFFECT_PIGMENTS.map((p) => [p.id, p] as const))('%s scatters back no less than nothing, by class', (_, p) => {
  const optics = createOptics(film, FIVE_ANGLES);
  const coat = prepareCoat(film, { flakes: { cover: 0.5, tilt: p.tilt, edge: 0, optics: p.optics } });
  const rates = new Float64Array(ratesLength(optics));
  for (let i = 0; i < 31; i++) {
    writeRates(optics, coat, i, film.mT(0), rates);
    for (const back of rates.subarray(RATE.B, RATE.B + 4)) expect(back).toBeGreaterThanOrEqual(0);
  }
});
