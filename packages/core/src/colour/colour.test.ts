import { describe, expect, it } from '@jest/globals';
import { converter, differenceCiede2000, differenceCie94, differenceCmc } from 'culori';
import fc from 'fast-check';
import { loadTable } from '../testdata/load';
import { de2000, de76, de94, deCmc } from './difference';
import { labToXyz, reflectanceToLab, xyzToLab, type Lab } from './lab';
import { metamerismIndex } from './metamerism';
import { xyzToScreen } from './screen';
import { flatSpectrum, spectrumFrom } from './spectrum';
import { spectrumFromLab } from './spectrumFromLab';
import { ILLUMINANTS, OBSERVERS, reflectanceToXyz, whitePoint, type Viewing } from './tristimulus';

const viewings: Viewing[] = ILLUMINANTS.flatMap((illuminant) =>
  OBSERVERS.map((observer) => ({ illuminant, observer })),
);
const labs = fc.tuple(
  fc.double({ min: 1, max: 99, noNaN: true }),
  fc.double({ min: -80, max: 80, noNaN: true }),
  fc.double({ min: -80, max: 80, noNaN: true }),
);

describe('colour difference', () => {
  const pairs = loadTable('ciede2000-sharma.csv');
  it('gives the 34 published CIEDE2000 pairs to 1e-4, both ways round (Sharma, Wu and Dalal 2005)', () => {
    expect(pairs).toHaveLength(34);
    for (const [, l1, a1, b1, l2, a2, b2, de] of pairs as [
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
    ][]) {
      expect(Math.abs(de2000([l1, a1, b1], [l2, a2, b2]) - de)).toBeLessThan(1e-4);
      expect(Math.abs(de2000([l2, a2, b2], [l1, a1, b1]) - de)).toBeLessThan(1e-4);
    }
  });

  it('agrees with a general colour library on CIEDE2000, CIE94 and CMC(2:1)', () => {
    const lab65 = (c: Lab) => ({ mode: 'lab65' as const, l: c[0], a: c[1], b: c[2] });
    const of = { de2000: differenceCiede2000(), de94: differenceCie94(), cmc: differenceCmc(2, 1) };
    fc.assert(
      fc.property(labs, labs, (p, q) => {
        // CIEDE2000 jumps where hues lie opposite (Sharma, Wu, Dalal 2005): there a last bit decides the side, and greys have no hue.
        const hue = ([, a, b]: Lab) => Math.atan2(b, a);
        const apart = Math.abs(hue(p) - hue(q));
        fc.pre([p, q].every(([, a, b]) => Math.hypot(a, b) > 1e-6) && Math.abs(apart - Math.PI) > 1e-6);
        expect(de2000(p, q)).toBeCloseTo(of.de2000(lab65(p), lab65(q)), 6);
        expect(de94(p, q)).toBeCloseTo(of.de94(lab65(p), lab65(q)), 6);
        expect(deCmc(p, q)).toBeCloseTo(of.cmc(lab65(p), lab65(q)), 6);
      }),
    );
  });

  it('is zero only between equals and never negative', () => {
    fc.assert(fc.property(labs, labs, (p, q) => de2000(p, p) === 0 && de2000(p, q) >= 0 && de76(p, q) === de76(q, p)));
  });
});

describe('spectra to colour', () => {
  it('gives the perfect diffuser L* 100, a* 0, b* 0 under every illuminant and observer', () => {
    for (const viewing of viewings) {
      const [l, a, b] = reflectanceToLab(flatSpectrum(1), viewing);
      expect([l, a, b].map((v) => Math.round(v * 1e6) / 1e6 + 0)).toEqual([100, 0, 0]);
    }
  });

  it('returns from Lab to XYZ and back', () => {
    fc.assert(
      fc.property(labs, fc.constantFrom(...viewings), (lab, v) => {
        const again = xyzToLab(labToXyz(lab, whitePoint(v)), whitePoint(v));
        again.forEach((x, i) => expect(x).toBeCloseTo(lab[i]!, 8));
      }),
    );
  });

  it('agrees with a general colour library on CIELAB from XYZ, its own D65 white taken', () => {
    const toLab = converter('lab65');
    const axis = fc.double({ min: 0.5, max: 95, noNaN: true });
    fc.assert(
      fc.property(axis, axis, axis, (x, y, z) => {
        const theirs = toLab({ mode: 'xyz65', x: x / 100, y: y / 100, z: z / 100 })!;
        // Chromaticity 0.3127, 0.3290, as the library has it.
        const ours = xyzToLab([x, y, z], [(100 * 0.3127) / 0.329, 100, (100 * 0.3583) / 0.329]);
        [theirs.l, theirs.a, theirs.b].forEach((v, i) => expect(ours[i]).toBeCloseTo(v, 4));
      }),
    );
  });

  it('agrees with a general colour library on sRGB from D65/2 XYZ', () => {
    const toRgb = converter('rgb');
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0.02, max: 0.9, noNaN: true }), { minLength: 31, maxLength: 31 }), (r) => {
        const viewing: Viewing = { illuminant: 'D65', observer: '2' };
        const xyz = reflectanceToXyz(r, viewing);
        const ours = xyzToScreen(xyz, viewing).srgb;
        const rgb = toRgb({ mode: 'xyz65', x: xyz[0] / 100, y: xyz[1] / 100, z: xyz[2] / 100 })!;
        [rgb.r, rgb.g, rgb.b].forEach((v, i) =>
          expect(Math.abs(ours[i]! - Math.min(255, Math.max(0, v * 255)))).toBeLessThan(1),
        );
      }),
    );
  });

  // Source: the CIE 15 tables at 5 nm. Tolerances: 0.05 dE for D65 and A, 0.3 for the line spectrum of FL11.
  it('agrees with 5 nm integration on smooth spectra', () => {
    const lamps = loadTable('illuminants-380-780-5nm.csv');
    const column: Record<string, number> = { D65: 1, A: 3, FL11: 5 };
    const smooth = [
      (nm: number) => 0.1 + 0.7 / (1 + Math.exp((nm - 580) / 25)),
      (nm: number) => 0.05 + 0.8 / (1 + Math.exp((590 - nm) / 20)),
      (nm: number) => 0.2 + 0.5 * Math.exp(-(((nm - 530) / 45) ** 2)),
      (nm: number) => 0.4 + 0.3 * Math.sin((nm - 400) / 70),
    ];
    for (const observer of OBSERVERS) {
      const cmf = loadTable(`cmf-${observer === '2' ? '1931-2deg' : '1964-10deg'}-380-780-5nm.csv`);
      for (const illuminant of ['D65', 'A', 'FL11'] as const) {
        const integrate = (r: (nm: number) => number): [number, number, number] => {
          const sum: [number, number, number] = [0, 0, 0];
          let scale = 0;
          cmf.forEach((row, i) => {
            const s = lamps[i]![column[illuminant]!]!;
            scale += s * row[2]!;
            for (const k of [0, 1, 2] as const) sum[k] += s * row[k + 1]! * r(Math.min(700, Math.max(400, row[0]!)));
          });
          return sum.map((v) => (100 * v) / scale) as [number, number, number];
        };
        const white = integrate(() => 1);
        for (const r of smooth) {
          const fine = xyzToLab(integrate(r), white);
          const ours = reflectanceToLab(spectrumFrom(r), { illuminant, observer });
          expect(de76(fine, ours)).toBeLessThan(illuminant === 'FL11' ? 0.3 : 0.05);
        }
      }
    }
  });

  it('finds a bounded spectrum for a colour, bright metallic readings included', () => {
    for (const lab of [
      [50, 0, 0],
      [82, -18, -8],
      [41, 56, 34],
      [130, -2, 4],
      [8, 0, 0],
      [70, -23, -37],
    ] as Lab[]) {
      const { spectrum, residual, status } = spectrumFromLab(lab);
      expect(status).toBe('converged');
      expect(residual).toBeLessThan(0.01);
      expect(Math.min(...spectrum)).toBeGreaterThanOrEqual(0);
    }
  });

  it('has no metamerism between proportional spectra, and some between metamers', () => {
    const r = spectrumFrom((nm) => 0.3 + 0.2 * Math.sin(nm / 40));
    expect(
      metamerismIndex(
        r,
        r.map((v) => v * 0.8),
        'D65',
        'A',
        '10',
      ).index,
    ).toBeLessThan(1e-9);
    const smooth = spectrumFromLab(reflectanceToLab(r)).spectrum;
    expect(metamerismIndex(r, smooth, 'D65', 'A', '10').index).toBeGreaterThan(0.5);
  });
});
