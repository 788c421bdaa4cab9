import { describe, expect, it } from '@jest/globals';
import { prepareLibrary } from '../materials/shop';
import { createRandom, quantile } from '../numeric';
import { prepareCoat } from '../optics/coat';
import { createFilm } from '../optics/film';
import { FIVE_ANGLES } from '../optics/geometry';
import { createOptics } from '../optics/optics';
import { evaluateReference } from '../optics/stack';
import { loadMonteCarlo } from '../testdata/load';
import { traceFilm } from './rays';
import { shareOf, studyPainter } from './run';
import { type PainterFigures } from './painterFigures';
import { CORE_KINDS, foreignWorld, KINDS, ownWorld } from './world';

describe('the rays of the foreign truth', () => {
  const cases = loadMonteCarlo();
  const film = createFilm(1.5);

  // Source of the factors: film-monte-carlo.json, ray transport of another program.
  it.each(
    cases.filter((c) => ['p01-dye', 'p03-metal1', 'p04-pearl', 'p06-pearl', 'p11-mix', 'p12-pig'].includes(c.id)),
  )(
    'bring back what another ray transport brings back: $id',
    ({ ground, coats, geometries }) => {
      const layers = coats.map((coat) => {
        const p = prepareCoat(film, coat);
        const times = (v: Float64Array) => v.map((x) => x * p.factor);
        return {
          dye: times(p.a),
          pigment: p.s[0] ? { k: times(p.k), s: times(p.s) } : null,
          flakes: p.flakes.map((f) => ({
            ...f,
            tau: f.tau * p.factor,
            tilts: [{ share: 1, sigma: f.tilt }],
          })),
        };
      });
      const own = geometries.filter((g) => g.incidence === 45);
      const out = traceFilm({ n: 1.5, albedo: new Float64Array(31).fill(ground), layers }, own, 4000, 3);
      own.forEach((g, k) => expect(Math.abs(out[31 * k]! / g.factor - 1)).toBeLessThan(g.aspecular > 45 ? 0.09 : 0.05));
    },
    30_000,
  );

  // The model against our own rays: silver and pearl among one another in a dyed coat with a little white, over a mid grey.
  it.each([
    [0.4, 0.25, 0],
    [0.2, 0.5, 0.02],
    [0.6, 0.15, 0],
  ])(
    'bring back what the model does where two kinds of flakes lie in one coat (%s, %s, s %s)',
    (silver, pearl, s) => {
      const coat = prepareCoat(film, {
        dye: 0.1,
        flakes: [
          { cover: silver, tilt: 7, edge: 0.08, optics: { kind: 'scalar', reflectance: 0.85, transmittance: 0 } },
          { cover: pearl, tilt: 11, edge: 0.1, optics: { kind: 'scalar', reflectance: 0.3, transmittance: 0.65 } },
        ],
        pigment: { k: 0.002, s, thickness: 10 },
      });
      const ground = new Float64Array(31).fill(0.4);
      const model = evaluateReference(createOptics(film, FIVE_ANGLES), { albedo: ground }, [coat]);
      const layers = [
        {
          dye: coat.a,
          pigment: { k: coat.k, s: coat.s },
          flakes: coat.flakes.map((f) => ({ ...f, tilts: [{ share: 1, sigma: f.tilt }] })),
        },
      ];
      const traced = traceFilm({ n: 1.5, albedo: ground, layers }, FIVE_ANGLES, 12_000, 5);
      FIVE_ANGLES.forEach((g, j) =>
        expect(Math.abs(model[31 * j]! / traced[31 * j]! - 1)).toBeLessThan(g.aspecular > 45 ? 0.08 : 0.04),
      );
    },
    60_000,
  );

  it('never send back more than came, and less through more dye', () => {
    const layer = (dye: number) => ({
      dye: new Float64Array(31).fill(dye),
      pigment: null,
      flakes: [],
    });
    const at = (dye: number) =>
      traceFilm(
        { n: 1.5, albedo: new Float64Array(31).fill(1), layers: [layer(dye)] },
        [{ incidence: 45, aspecular: 45 }],
        1500,
        1,
      )[0]!;
    expect(at(0)).toBeLessThan(1.02);
    expect(at(0.3)).toBeLessThan(at(0.1));
  });
});

/** Fewer, and what the tracer itself scatters looks like a wrong rung. */
const RAYS = 900;

// A small part of `npm run study`; docs/study.md has the whole.
describe('the study, small', () => {
  const shop = prepareLibrary();
  const options = { jobsEach: 2, now: () => 0 };
  const all = (p: readonly PainterFigures[]) => p.flatMap((x) => x.jobs);

  it('counts, states honest intervals and does not overspray, with the program’s own truth', () => {
    const painters = Array.from({ length: 16 }, (_, i) =>
      studyPainter(ownWorld(shop, CORE_KINDS[i % 4]!, createRandom(40 + i)), 90 + i, shop, options),
    );
    expect(
      quantile(
        painters.flatMap((p) => p.predicted),
        0.5,
      ),
    ).toBeLessThan(0.9);
    expect(shareOf(painters, (p) => Math.abs(p.four) <= 0.25)).toBeGreaterThanOrEqual(0.85);
    expect(shareOf(painters, (p) => p.cardHolds)).toBeGreaterThanOrEqual(0.75);
    expect(shareOf(painters, (p) => p.blamed)).toBeLessThanOrEqual(0.1);
    expect(shareOf(painters, (p) => p.exchangedNamed)).toBeGreaterThanOrEqual(0.8);
    expect(shareOf(painters, (p) => p.advised)).toBe(1);
    expect(shareOf(all(painters), (j) => j.end === 'in')!).toBeGreaterThan(
      shareOf(all(painters), (j) => j.blind === 'in')! + 0.2,
    );
    expect(shareOf(all(painters), (j) => j.end === 'over')!).toBeLessThan(0.15);
    expect(shareOf(painters, (p) => p.eye.holds)).toBeGreaterThanOrEqual(0.75);
  }, 120_000);

  it('advises every kind under the foreign truth, and better than blindly', () => {
    const painters = KINDS.map((kind, i) =>
      studyPainter(foreignWorld(shop, kind, createRandom(70 + i), RAYS), 30 + i, shop, options),
    );
    expect(shareOf(painters, (p) => p.advised)).toBe(1);
    for (const p of painters) for (const v of [p.four, p.two, ...p.predicted]) expect(Number.isFinite(v)).toBe(true);
    expect(shareOf(painters.slice(0, 4), (p) => Math.abs(p.four) <= 0.6)).toBe(1);
    expect(shareOf(painters.slice(0, 4), (p) => p.blamed)).toBe(0);
  }, 120_000);
});
