import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { flatSpectrum } from '../colour/spectrum';
import { createDiffuseState, startAtGround } from './closure';
import { prepareCoat, type Coat } from './coat';
import { createFilm } from './film';
import { FIVE_ANGLES } from './geometry';
import { createImbedding } from './imbedding';
import { writeLobe } from './lobe';
import { createOptics, referenceTilt } from './optics';
import { createFastModel, evaluateReference } from './stack';

const film = createFilm(1.5);
const five = createOptics(film, FIVE_ANGLES);
const fast = createFastModel(five);
const between = (min: number, max: number) => fc.double({ min, max, noNaN: true });

/** Any coat the model admits, extremes included: cover to 0.99, tilt 2-20 degrees, optical depth 8, pigment. */
const coat: fc.Arbitrary<Coat> = fc.record(
  {
    dye: fc.oneof(between(0, 1.5), fc.constant(8), fc.constant(0)),
    flakes: fc
      .record({
        cover: fc.oneof(between(0, 0.99), fc.constantFrom(0, 0.99)),
        tilt: fc.oneof(between(2, 20), fc.constantFrom(2, 20)),
        edge: between(0, 0.3),
        r: between(0, 1),
        share: between(0, 1),
      })
      .map(({ cover, tilt, edge, r, share }) => ({
        cover,
        tilt,
        edge,
        optics: { kind: 'scalar' as const, reflectance: r, transmittance: (1 - r) * share },
      })),
    pigment: fc.record({ k: between(0, 2), s: between(0, 4), thickness: fc.constant(1) }),
  },
  { requiredKeys: [] },
);
const stack = fc.oneof(
  fc.array(coat, { maxLength: 4 }),
  coat.map((c) => Array.from({ length: 20 }, () => c)),
);
const rho = fc.oneof(between(0, 0.99), fc.constant(0));
const evaluate = (albedo: number, coats: readonly Coat[]) =>
  [
    ...fast.evaluate(
      { albedo: flatSpectrum(albedo) },
      coats.map((c) => prepareCoat(film, c)),
    ),
  ].filter((_, i) => i % 31 === 0);
const close = (a: readonly number[], b: readonly number[], relative: number) =>
  a.forEach((v, i) => expect(Math.abs(v - b[i]!)).toBeLessThanOrEqual(relative * Math.max(Math.abs(b[i]!), 1e-4)));

describe('laws of the film', () => {
  it('sends out nothing negative or endless, and no layer returns more than it receives', () => {
    const imbed = createImbedding(five);
    fc.assert(
      fc.property(rho, stack, (albedo, coats) => {
        for (const f of evaluate(albedo, coats)) {
          expect(f).toBeGreaterThanOrEqual(-1e-9);
          expect(Number.isFinite(f)).toBe(true);
        }
        const state = createDiffuseState(five);
        startAtGround(five, albedo, state);
        for (const c of coats) imbed(state, prepareCoat(film, c), 0, film.mT0);
        expect(state.rm[0]! + state.rm[2]!).toBeLessThanOrEqual(1 + 1e-6);
        expect(state.rm[1]! + state.rm[3]!).toBeLessThanOrEqual(1 + 1e-6);
        state.h.forEach((h, d) => {
          expect(Math.min(h, ...state.rm)).toBeGreaterThanOrEqual(-1e-9);
          expect(h + state.b[2 * d]! + state.b[2 * d + 1]!).toBeLessThanOrEqual(1 + 1e-6);
        });
      }),
      { numRuns: 60 },
    );
  });

  it('has a reciprocal lobe', () => {
    fc.assert(
      fc.property(fc.array(coat, { minLength: 1, maxLength: 3 }), between(5, 70), between(-60, 60), (coats, i, v) => {
        // Lamp at i seen at v, against lamp at |v| seen at i on the same side of the normal as before.
        const there = { incidence: i, aspecular: i - v };
        const back = v >= 0 ? { incidence: v, aspecular: v - i } : { incidence: -v, aspecular: -v + i };
        const optics = createOptics(film, [there, back]);
        const prepared = coats.map((c) => prepareCoat(film, c));
        const tilt = referenceTilt(optics, prepared);
        const out = new Float64Array(62);
        writeLobe(optics, prepared, tilt, optics.exactTables(tilt), null, out);
        expect(Math.abs(out[0]! - out[31]!)).toBeLessThanOrEqual(1e-6 * Math.max(out[0]!, 1e-6) + 1e-12);
      }),
      { numRuns: 30 },
    );
  });

  it('leaves the ground its own colour without flakes, dye and pigment', () => {
    fc.assert(fc.property(rho, (albedo) => close(evaluate(albedo, [{}, { dye: 0 }]), evaluate(albedo, []), 1e-12)));
  });

  it('changes nothing with a coat of factor 0, nor by splitting a coat in two halves', () => {
    fc.assert(
      fc.property(rho, fc.array(coat, { minLength: 1, maxLength: 3 }), fc.nat(2), (albedo, coats, at) => {
        const whole = evaluate(albedo, coats);
        const j = at % coats.length;
        close(evaluate(albedo, [...coats, { ...coats[j]!, factor: 0 }]), whole, 1e-9);
        const optics = five;
        const prepared = coats.map((c) => prepareCoat(film, c));
        // Halves are kept apart by a copy, so that the slabs are really added and not merged.
        const half = { ...prepared[j]!, factor: 0.5 };
        const split = [...prepared.slice(0, j), half, { ...half, a: half.a.slice() }, ...prepared.slice(j + 1)];
        const halves = [...createFastModel(optics).evaluate({ albedo: flatSpectrum(albedo) }, split)].filter(
          (_, i) => i % 31 === 0,
        );
        close(halves, whole, 2e-3);
      }),
      { numRuns: 60 },
    );
  });

  it('never gets lighter with more dye', () => {
    fc.assert(
      fc.property(rho, fc.array(coat, { minLength: 1, maxLength: 3 }), between(0.01, 2), (albedo, coats, more) => {
        const before = evaluate(albedo, coats);
        evaluate(albedo, [...coats, { dye: more }]).forEach((f, g) =>
          expect(f).toBeLessThanOrEqual(before[g]! * (1 + 1e-6) + 1e-9),
        );
      }),
      { numRuns: 60 },
    );
  });

  it('holds at grazing lamps and views', () => {
    const grazing = createOptics(film, [
      { incidence: 80, aspecular: 15 },
      { incidence: 80, aspecular: 160 },
      { incidence: 80, aspecular: 0.5 },
    ]);
    fc.assert(
      fc.property(rho, fc.array(coat, { maxLength: 3 }), (albedo, coats) => {
        const out = createFastModel(grazing).evaluate(
          { albedo: flatSpectrum(albedo) },
          coats.map((c) => prepareCoat(film, c)),
        );
        expect(out.every((f) => Number.isFinite(f) && f >= -1e-9)).toBe(true);
      }),
      { numRuns: 25 },
    );
  });

  // The tiers solve the same equations by Runge-Kutta and by doubling; they differ by step sizes and table interpolation.
  it('agrees between the tiers on random stacks within 1.5 %', () => {
    fc.assert(
      fc.property(between(0.02, 0.9), fc.array(coat, { minLength: 1, maxLength: 3 }), (albedo, coats) => {
        const prepared = coats.map((c) => prepareCoat(film, c));
        const exact = [...evaluateReference(five, { albedo: flatSpectrum(albedo) }, prepared)].filter(
          (_, i) => i % 31 === 0,
        );
        close(evaluate(albedo, coats), exact, 0.015);
      }),
      { numRuns: 40 },
    );
  });
});
