import { describe, expect, it } from '@jest/globals';
import { prepareLibrary } from '../materials/shop';
import { createRandom, quantile } from '../numeric';
import { prepareCoat, type Coat } from '../optics/coat';
import { createFilm } from '../optics/film';
import { loadMonteCarlo } from '../testdata/load';
import { traceFilm } from './rays';
import { shareOf, studyPainter, type PainterFigures } from './run';
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
        const p = prepareCoat(film, coat as Coat);
        const times = (v: Float64Array) => v.map((x) => x * p.factor);
        return {
          dye: times(p.a),
          pigment: p.s[0] ? { k: times(p.k), s: times(p.s) } : null,
          tau: p.tau * p.factor,
          edge: p.edge,
          tilts: [{ share: 1, sigma: p.tilt }],
          flake: p.table,
        };
      });
      const own = geometries.filter((g) => g.incidence === 45);
      const out = traceFilm({ n: 1.5, albedo: new Float64Array(31).fill(ground), layers }, own, 4000, 3);
      own.forEach((g, k) => expect(Math.abs(out[31 * k]! / g.factor - 1)).toBeLessThan(g.aspecular > 45 ? 0.09 : 0.05));
    },
    30_000,
  );

  it('never send back more than came, and less through more dye', () => {
    const layer = (dye: number) => ({
      dye: new Float64Array(31).fill(dye),
      pigment: null,
      tau: 0,
      edge: 0,
      tilts: [],
      flake: null,
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
