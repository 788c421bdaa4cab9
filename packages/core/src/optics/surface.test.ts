import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { diffuseInterface, interfaceReflectance } from './fresnel';
import { flakePower } from './flakeOptics';
import { kubelkaMunkInfinite, kubelkaMunkOver } from './kubelkaMunk';
import { internalToMeasured, measuredToInternal } from './saunderson';
import { thinFilmPower } from './thinFilm';

const lossless = fc.record({
  n: fc.double({ min: 1.3, max: 3, noNaN: true }),
  k: fc.constant(0),
  nm: fc.double({ min: 0, max: 800, noNaN: true }),
});

describe('smooth surface', () => {
  it('reflects 4 % at the normal, 5.02 % at 45 degrees for n = 1.5, and all beyond the critical angle (Fresnel)', () => {
    expect(interfaceReflectance(1, 1.5, 0).r).toBeCloseTo(0.04, 12);
    const at45 = interfaceReflectance(1, 1.5, 45);
    // At 45 degrees Rp = Rs^2 for any index.
    expect(at45.rp).toBeCloseTo(at45.rs ** 2, 12);
    expect(at45.rs).toBeCloseTo(0.0920134, 6);
    expect(interfaceReflectance(1.5, 1, 41.82).r).toBe(1);
    expect(interfaceReflectance(1.5, 1, 41.8).r).toBeLessThan(1);
    expect(interfaceReflectance(1, 1.5, (Math.atan(1.5) * 180) / Math.PI).rp).toBeCloseTo(0, 12);
  });

  it('returns 0.0918 outside and 0.5963 inside for diffuse light, n = 1.5 (Saunderson 1942, literature values)', () => {
    const d = diffuseInterface(1.5);
    expect(d.external).toBeCloseTo(0.0918, 4);
    expect(d.internal).toBeCloseTo(0.5963, 4);
  });

  it('turns internal into measured reflectance and back', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 0.99, noNaN: true }), (r) => {
        expect(measuredToInternal(internalToMeasured(r, 0.0918, 0.5963), 0.0918, 0.5963)).toBeCloseTo(r, 9);
      }),
    );
  });
});

describe('thin films', () => {
  it('follows the closed forms of quarter-wave and half-wave layers', () => {
    const [n0, n1, ns] = [1, 1.38, 1.52];
    const quarter = thinFilmPower(n0, [{ n: n1, k: 0, nm: 550 / 4 / n1 }], { n: ns, k: 0 }, 1, 550);
    expect(quarter.r).toBeCloseTo(((n0 * ns - n1 * n1) / (n0 * ns + n1 * n1)) ** 2, 10);
    const half = thinFilmPower(n0, [{ n: n1, k: 0, nm: 550 / 2 / n1 }], { n: ns, k: 0 }, 1, 550);
    expect(half.r).toBeCloseTo(((n0 - ns) / (n0 + ns)) ** 2, 10);
    const stack = Array.from({ length: 8 }, (_, i) => ({
      n: i % 2 ? 1.38 : 2.4,
      k: 0,
      nm: 550 / 4 / (i % 2 ? 1.38 : 2.4),
    }));
    const y = ns * (2.4 / 1.38) ** 8;
    expect(thinFilmPower(n0, stack, { n: ns, k: 0 }, 1, 550).r).toBeCloseTo(((1 - y) / (1 + y)) ** 2, 10);
  });

  it('loses nothing in lossless layers, at any angle and order', () => {
    fc.assert(
      fc.property(
        fc.array(lossless, { maxLength: 5 }),
        fc.double({ min: 0.05, max: 1, noNaN: true }),
        fc.double({ min: 400, max: 700, noNaN: true }),
        (layers, cosine, nm) => {
          const p = thinFilmPower(1.5, layers, { n: 1.6, k: 0 }, cosine, nm);
          expect(p.rs + p.ts).toBeCloseTo(1, 8);
          expect(p.rp + p.tp).toBeCloseTo(1, 8);
        },
      ),
    );
  });

  it('meets Fresnel without layers and stays finite in thick metal', () => {
    expect(thinFilmPower(1, [], { n: 1.5, k: 0 }, Math.SQRT1_2, 550).r).toBeCloseTo(
      interfaceReflectance(1, 1.5, 45).r,
      12,
    );
    const thick = thinFilmPower(1.5, [{ n: 0.96, k: 6.69, nm: 20000 }], { n: 1.5, k: 0 }, 0.8, 550);
    const bulk = thinFilmPower(1.5, [], { n: 0.96, k: 6.69 }, 0.8, 550);
    expect(thick.r).toBeCloseTo(bulk.r, 9);
    expect(thick.t).toBeCloseTo(0, 12);
  });

  it('adds two lossless faces over a core as R = 2r/(1+r), T = 1 - R, per polarisation', () => {
    const layer = { n: 2.4, k: 0, nm: 60 };
    for (const cosine of [1, 0.9, 0.75]) {
      const face = thinFilmPower(1.5, [layer], { n: 1.6, k: 0 }, cosine, 550);
      const both = flakePower(
        { kind: 'thinFilm', layers: [layer], exit: { n: 1.6, k: 0 }, twoSided: true },
        15,
        cosine,
        1.5,
      );
      const sum = (r: number) => (2 * r) / (1 + r);
      expect(both.r).toBeCloseTo((sum(face.rs) + sum(face.rp)) / 2, 9);
      expect(both.r + both.t).toBeCloseTo(1, 9);
    }
  });
});

describe('Kubelka-Munk', () => {
  it('reaches its limits and composes: two coats over each other are one thick coat', () => {
    expect(kubelkaMunkOver(0.01, 0.05, 1e5, 0.1)).toBeCloseTo(kubelkaMunkInfinite(0.01, 0.05), 9);
    expect(kubelkaMunkOver(0.02, 0, 10, 0.5)).toBeCloseTo(0.5 * Math.exp(-0.4), 12);
    expect(kubelkaMunkOver(0, 0.1, 10, 0)).toBeCloseTo(0.5, 9);
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 0.2, noNaN: true }),
        fc.double({ min: 0.001, max: 0.5, noNaN: true }),
        fc.double({ min: 0.1, max: 30, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (k, s, d, over) => {
          expect(kubelkaMunkOver(k, s, d, kubelkaMunkOver(k, s, d, over))).toBeCloseTo(
            kubelkaMunkOver(k, s, 2 * d, over),
            7,
          );
        },
      ),
    );
  });
});
