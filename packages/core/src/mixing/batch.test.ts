import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { bodyArea, cupFor, rescueOverpour, roundUpBatch } from './batch';
import { mixByParts } from './mix';
import { quantityMl, spreadingRate } from './quantity';

const positive = fc.double({ min: 0.1, max: 5, noNaN: true });

describe('quantities', () => {
  it('measures simple bodies (closed forms)', () => {
    expect(bodyArea({ kind: 'panel', width: 2, height: 1.5 })).toBeCloseTo(3, 12);
    expect(bodyArea({ kind: 'cylinder', diameter: 1, height: 2, ends: 2 })).toBeCloseTo(2.5 * Math.PI, 12);
    // A dome as high as its radius is half a sphere.
    expect(bodyArea({ kind: 'dome', diameter: 2, height: 1 })).toBeCloseTo(2 * Math.PI, 12);
    // A tub with straight sides is a cylinder with one end.
    fc.assert(
      fc.property(positive, positive, (d, height) => {
        expect(bodyArea({ kind: 'tub', top: d, bottom: d, height })).toBeCloseTo(
          bodyArea({ kind: 'cylinder', diameter: d, height, ends: 1 }),
          9,
        );
      }),
    );
    expect(bodyArea({ kind: 'tube', diameter: 0.03, length: 12 })).toBeCloseTo(0.36 * Math.PI, 12);
    expect(() => bodyArea({ kind: 'panel', width: 0, height: 1 })).toThrow(/above zero/);
  });

  it('agrees with the handbook’s spreading rate and with common practice', () => {
    // 10 x VS% / DFT; 1604 ft2 mil per US gallon is the same in other units: 3.785412 l, 0.09290304 m2, 25.4 um.
    expect(spreadingRate(1, 1)).toBe(1000);
    expect((spreadingRate(1, 25.4) * 3.785412) / 0.09290304).toBeCloseTo(1604, 0);
    // Two coats of ordinary clear on 8 to 10 m2 take about 2.2 l: common practice (no source).
    const clear = quantityMl({ area: 9, coats: 2, dryFilm: 28, volumeSolids: 0.42, transferEfficiency: 0.6, loss: 60 });
    expect(clear).toBeGreaterThan(1900);
    expect(clear).toBeLessThan(2500);
  });
});

describe('a batch', () => {
  const parts = [
    { name: 'base', parts: 4, density: 0.95 },
    { name: 'reducer', parts: 2, density: 0.87 },
    { name: 'hardener', parts: 1 },
  ];

  it('is poured to marks 4, 6, 7 (common practice)', () => {
    expect(mixByParts(parts, { total: 700 }).parts.map((p) => p.mark)).toEqual([400, 600, 700]);
  });

  it('is rescued in proportion, whichever part was overpoured', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 2 }), fc.double({ min: 1.01, max: 2, noNaN: true }), (index, factor) => {
        const planned = mixByParts(parts, { total: 700 }).parts;
        const saved = rescueOverpour(parts, 700, index, planned[index]!.ml * factor)!;
        expect(saved.ml).toBeCloseTo(700 * factor, 6);
        saved.parts.forEach((p, i) => {
          const inCup = i < index ? planned[i]!.ml : i === index ? planned[i]!.ml * factor : 0;
          expect(inCup + p.more).toBeCloseTo((saved.ml * parts[i]!.parts) / 7, 6);
          expect(p.more).toBeGreaterThanOrEqual(0);
        });
      }),
    );
    expect(rescueOverpour(parts, 700, 1, 150)).toBeNull();
  });

  it('goes into a cup that holds it, rounded up', () => {
    expect([roundUpBatch(201), roundUpBatch(200), roundUpBatch(301)]).toEqual([210, 200, 325]);
    expect(cupFor(300)).toBe(385);
    expect(cupFor(380)).toBe(600);
    expect(cupFor(5000)).toBeNull();
  });
});
